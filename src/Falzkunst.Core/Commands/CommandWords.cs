using Falzkunst.Core.Designs;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Commands;

/// <summary>The words behind a command's name, taken one after the other. A name of several words stands in double quotes.</summary>
public sealed class CommandWords
{
    private readonly List<string> _words;
    private readonly string _usage;
    private readonly Units _units;
    private int _position;

    public CommandWords(string text, string usage, Units units)
    {
        (_usage, _units) = (usage, units);
        _words = Split(text, usage);
    }

    private static List<string> Split(string text, string usage)
    {
        var words = new List<string>();
        for (var at = 0; at < text.Length;)
        {
            if (char.IsWhiteSpace(text[at]))
            {
                at++;
                continue;
            }
            var isQuoted = text[at] == '"';
            var from = isQuoted ? at + 1 : at;
            var to = from;
            while (to < text.Length && (isQuoted ? text[to] != '"' : !char.IsWhiteSpace(text[to]))) to++;
            if (isQuoted && to == text.Length) throw new EditRefused(Reason.QuoteOpen, usage);
            words.Add(text[from..to]);
            at = isQuoted ? to + 1 : to;
        }
        return words;
    }

    public bool HasMore => _position < _words.Count;

    /// <summary>The next word begins like a number.</summary>
    public bool PeekIsNumber => HasMore && (char.IsAsciiDigit(_words[_position][0]) || _words[_position][0] is '-' or '.' or '(');

    /// <summary>The next word is this one.</summary>
    public bool PeekIs(string word) => HasMore && string.Equals(_words[_position], word, StringComparison.OrdinalIgnoreCase);

    /// <summary>Takes the next word if it is this one.</summary>
    public bool Take(string word)
    {
        if (!PeekIs(word)) return false;
        _position++;
        return true;
    }

    public string Word(string what) => HasMore ? _words[_position++] : throw Lacking(what);

    /// <summary>All that is left, as one text.</summary>
    public string Rest(string what)
    {
        if (!HasMore) throw Lacking(what);
        var rest = string.Join(' ', _words.Skip(_position));
        _position = _words.Count;
        return rest;
    }

    /// <summary>A length in mm, typed with or without a unit.</summary>
    public double Length(string what)
    {
        var word = Word(what);
        // A unit may stand apart from its number.
        if (HasMore && _words[_position].ToLowerInvariant() is "mm" or "cm" or "in" or "pt") word += _words[_position++];
        return Measures.Length.Read(word, _units, out var mm) is null ? mm : throw new EditRefused(Reason.NotALength, word);
    }

    public double Number(string what)
    {
        var word = Word(what);
        return Numbers.TryRead(word, out double number) ? number : throw new EditRefused(Reason.NotANumber, word, _usage);
    }

    public int Count(string what)
    {
        var word = Word(what);
        return Numbers.TryRead(word, out int number) ? number : throw new EditRefused(Reason.NotAWholeNumber, word, _usage);
    }

    /// <summary>One of a set of words.</summary>
    public T OneOf<T>(string what, params (string Word, T Value)[] choices)
    {
        var word = Word(what);
        foreach (var (choice, value) in choices)
        {
            if (string.Equals(choice, word, StringComparison.OrdinalIgnoreCase)) return value;
        }
        throw new EditRefused(Reason.NotOneOf, word, choices.Select(c => c.Word).ToList(), _usage);
    }

    /// <exception cref="EditRefused">Words are left over.</exception>
    public void End()
    {
        if (HasMore) throw new EditRefused(Reason.CommandTooMuch, _words[_position], _usage);
    }

    /// <summary>Something that the command needs is not there.</summary>
    public EditRefused Lacking(string what) => new(Reason.CommandLacks, what, _usage);
}
