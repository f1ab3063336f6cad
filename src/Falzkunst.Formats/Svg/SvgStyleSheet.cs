using ExCSS;
using Falzkunst.Core.Designs;

namespace Falzkunst.Formats.Svg;

/// <summary>The style elements of a file: which declarations hold for an element, weakest first.</summary>
internal sealed class SvgStyleSheet
{
    private const int MostCharacters = 1_000_000;
    private readonly List<(SvgSelector Selector, List<Declaration> Declarations)> _rules = [];
    private readonly Dictionary<string, List<int>> _byClass = new(StringComparer.Ordinal);
    private readonly List<int> _general = [];

    internal readonly record struct Declaration(string Name, string Value, bool Important);

    public bool IsEmpty => _rules.Count == 0;

    public void Add(SvgNode style, Action<ReadingNote> note)
    {
        if (style.Text.Length > MostCharacters)
        {
            note(new ReadingNote("style-sheet", "A style sheet is too long and was left out.", style.Place));
            return;
        }
        if (style["type"] is { Length: > 0 } type && type != "text/css") return;
        var parser = new StylesheetParser(
            includeUnknownRules: true, includeUnknownDeclarations: true, tolerateInvalidSelectors: true,
            tolerateInvalidValues: true, tolerateInvalidConstraints: true, preserveComments: false);
        var sheet = parser.Parse(style.Text);
        foreach (var rule in sheet.Children.OfType<IRule>())
        {
            if (rule is IStyleRule styled) Add(styled, style, note);
            else note(new ReadingNote("style-rule", $"A style rule of the kind “{rule.Type}” was left out.", style.Place));
        }
    }

    private void Add(IStyleRule rule, SvgNode style, Action<ReadingNote> note)
    {
        var declarations = rule.Style.Select(p => new Declaration(p.Name, p.Value, p.IsImportant)).ToList();
        foreach (var one in rule.SelectorText.Split(','))
        {
            if (SvgSelector.Read(one) is { } selector)
            {
                var last = one.Trim().Split([' ', '>'])[^1];
                if (last.Length > 1 && last[0] == '.' && last[1..].All(c => char.IsLetterOrDigit(c) || c is '-' or '_'))
                {
                    if (!_byClass.TryGetValue(last[1..], out var list)) _byClass[last[1..]] = list = [];
                    list.Add(_rules.Count);
                }
                else
                {
                    _general.Add(_rules.Count);
                }
                _rules.Add((selector, declarations));
            }
            else if (!one.Contains(':', StringComparison.Ordinal))
            {
                note(new ReadingNote("style-rule", $"The style selector “{one.Trim()}” was not understood.", style.Place));
            }
        }
    }

    /// <summary>Declarations of all matching rules, weakest first, important ones last.</summary>
    public IEnumerable<Declaration> For(SvgNode node)
    {
        if (_rules.Count == 0) return [];
        IEnumerable<int> candidates = _general;
        if (node["class"] is { } classes)
        {
            foreach (var name in classes.Split([' ', '\t', '\r', '\n'], StringSplitOptions.RemoveEmptyEntries))
            {
                if (_byClass.TryGetValue(name, out var list)) candidates = candidates.Concat(list);
            }
        }
        var matching = candidates.Where(i => _rules[i].Selector.Matches(node)).OrderBy(i => _rules[i].Selector.Specificity).ThenBy(i => i).ToList();
        return matching.Count == 0 ? [] : matching.SelectMany(i => _rules[i].Declarations).OrderBy(d => d.Important);
    }
}
