using System.Globalization;
using System.Text;
using Falzkunst.Core.Budgets;

namespace Falzkunst.Formats.Svg;

/// <summary>
/// A CSS selector of the kinds that drawing programs write: type, class, id, attribute, and the descendant and child
/// combinators. Matched right to left without backtracking.
/// </summary>
internal sealed class SvgSelector
{
    /// <summary>Parts of a selector; drawing programs write up to four.</summary>
    private const int MostParts = 64;

    private readonly List<(char Combinator, Compound Compound)> _parts = [];

    /// <summary>CSS specificity as one number.</summary>
    public int Specificity { get; private set; }

    /// <summary>A class, id or type (".a", "#a", "a") that every element it matches has; null where there is none.</summary>
    public string? Key => _parts[^1].Compound.Key;

    /// <summary>Reads one selector (no commas); null for kinds that are not understood.</summary>
    public static SvgSelector? Read(string text)
    {
        var selector = new SvgSelector();
        var combinator = ' ';
        foreach (var token in Tokens(text))
        {
            if (token == ">")
            {
                combinator = '>';
                continue;
            }
            if (selector._parts.Count == MostParts || Compound.Read(token) is not { } compound) return null;
            selector._parts.Add((combinator, compound));
            selector.Specificity = (int)Math.Min(int.MaxValue, (long)selector.Specificity + compound.Specificity);
            combinator = ' ';
        }
        return selector._parts.Count > 0 ? selector : null;
    }

    /// <summary>Compounds and ">" in order; a blank that ends an escape parts nothing.</summary>
    private static IEnumerable<string> Tokens(string text)
    {
        var from = 0;
        for (var at = 0; at <= text.Length; at++)
        {
            if (at < text.Length && text[at] == '\\')
            {
                var digits = at + 1;
                while (digits < text.Length && digits - at <= 6 && char.IsAsciiHexDigit(text[digits])) digits++;
                at = digits > at + 1 && digits < text.Length && char.IsWhiteSpace(text[digits]) ? digits : Math.Max(at + 1, digits - 1);
                continue;
            }
            if (at < text.Length && text[at] != '>' && !char.IsWhiteSpace(text[at])) continue;
            if (at > from) yield return text[from..at];
            if (at < text.Length && text[at] == '>') yield return ">";
            from = at + 1;
        }
    }

    /// <summary>
    /// The element matches. What is joined by child combinators is one run; each run is matched at the nearest ancestor where
    /// it fits, which leaves most to the runs before it, so that no choice is ever taken back.
    /// </summary>
    public bool Matches(SvgNode node, Budget budget)
    {
        var part = _parts.Count - 1;
        if (RunUp(node, part, budget) is not { } rest) return false;
        var (at, left) = rest;
        while (left >= 0)
        {
            for (at = at.Parent; ; at = at.Parent)
            {
                if (at is null) return false;
                if (RunUp(at, left, budget) is not { } further) continue;
                (at, left) = further;
                break;
            }
        }
        return true;
    }

    /// <summary>Matches a run of parts joined by child combinators that ends at a node: where it began, and the part before it.</summary>
    private (SvgNode At, int Left)? RunUp(SvgNode node, int part, Budget budget)
    {
        while (true)
        {
            budget.Work(2);
            if (!_parts[part].Compound.Matches(node, budget)) return null;
            if (part == 0 || _parts[part].Combinator == ' ') return (node, part - 1);
            if (node.Parent is not { } parent) return null;
            (node, part) = (parent, part - 1);
        }
    }

    private sealed class Compound
    {
        private string? _type;
        private string? _id;
        private readonly HashSet<string> _classes = new(StringComparer.Ordinal);
        private readonly List<(string Name, string? Value)> _attributes = [];

        public int Specificity => (_id is null ? 0 : 10000) + (_classes.Count + _attributes.Count) * 100 + (_type is null ? 0 : 1);

        public string? Key => _id is not null ? "#" + _id : _classes.Count > 0 ? "." + _classes.First() : _type;

        public static Compound? Read(string text)
        {
            var compound = new Compound();
            var at = 0;
            while (at < text.Length)
            {
                var kind = text[at];
                if (kind == '*')
                {
                    at++;
                    continue;
                }
                if (kind == '[')
                {
                    var close = text.IndexOf(']', at);
                    if (close < 0) return null;
                    var inside = text[(at + 1)..close].Split('=', 2);
                    if (inside[0].Length == 0 || inside[0].Any(c => !IsNameChar(c))) return null;
                    compound._attributes.Add((inside[0], inside.Length == 2 ? inside[1].Trim('"', '\'') : null));
                    at = close + 1;
                    continue;
                }
                if (kind is '.' or '#') at++;
                if (Name(text, ref at) is not { Length: > 0 } name) return null;
                if (kind == '.') compound._classes.Add(name);
                else if (kind == '#') compound._id = name;
                else compound._type = name;
            }
            return compound;
        }

        /// <summary>An identifier with its escapes resolved (CSS Syntax Level 3, 4.3.7).</summary>
        private static string Name(string text, ref int at)
        {
            var name = new StringBuilder();
            while (at < text.Length && (IsNameChar(text[at]) || text[at] == '\\'))
            {
                if (text[at] != '\\')
                {
                    name.Append(text[at++]);
                    continue;
                }
                var from = ++at;
                while (at < text.Length && at - from < 6 && char.IsAsciiHexDigit(text[at])) at++;
                if (at > from && int.TryParse(text.AsSpan(from, at - from), NumberStyles.AllowHexSpecifier, CultureInfo.InvariantCulture, out var code) && Rune.TryCreate(code, out var rune))
                {
                    name.Append(rune);
                    if (at < text.Length && char.IsWhiteSpace(text[at])) at++;
                }
                else if (at < text.Length) name.Append(text[at++]);
            }
            return name.ToString();
        }

        private static bool IsNameChar(char c) => char.IsLetterOrDigit(c) || c is '-' or '_';

        public bool Matches(SvgNode node, Budget budget)
        {
            if (_type is not null && !_type.Equals(node.Name, StringComparison.Ordinal)) return false;
            if (_id is not null && _id != node.Id) return false;
            budget.Work(_classes.Count + _attributes.Count);
            return (_classes.Count == 0 || _classes.IsSubsetOf(node.Classes))
                && _attributes.TrueForAll(a => node[a.Name] is { } value && (a.Value is null || a.Value == value));
        }
    }
}
