using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;

namespace Falzkunst.Formats.Svg;

/// <summary>The style elements of a file: which declarations hold for an element, weakest first.</summary>
internal sealed class SvgStyleSheet(Budget budget)
{
    private readonly List<(SvgSelector Selector, List<CssDeclaration> Declarations)> _rules = [];

    /// <summary>Rules by what their last part asks for, so that an element is compared with few of them.</summary>
    private readonly Dictionary<string, List<int>> _byKey = new(StringComparer.Ordinal);
    private readonly List<int> _general = [];

    public bool IsEmpty => _rules.Count == 0;

    public void Add(SvgNode style, Action<ReadingNote> note)
    {
        if (style["type"] is { Length: > 0 } type && type != "text/css") return;
        void PassedOver(string what) => note(new ReadingNote("style-rule",
            what == "nested" ? "A style rule inside another was left out." : $"A style rule of the kind “{what}” was left out.", style.Place));
        foreach (var rule in new CssReader(style.Text, budget).Rules(PassedOver))
        {
            foreach (var one in rule.Selectors.Split(',')) Add(one, rule.Declarations, style, note);
        }
    }

    private void Add(string text, List<CssDeclaration> declarations, SvgNode style, Action<ReadingNote> note)
    {
        budget.Work(20 + text.Length);
        if (SvgSelector.Read(text) is not { } selector)
        {
            // States such as :hover never hold here.
            if (!text.Contains(':', StringComparison.Ordinal)) note(new ReadingNote("style-rule", $"The style selector “{Short(text.Trim())}” was not understood.", style.Place));
            return;
        }
        var fitting = _general;
        if (selector.Key is { } key && !_byKey.TryGetValue(key, out fitting!)) _byKey[key] = fitting = [];
        fitting.Add(_rules.Count);
        _rules.Add((selector, declarations));
    }

    private static string Short(string text) => text.Length > 40 ? text[..40] + "…" : text;

    /// <summary>Declarations of all matching rules, by specificity and then by order (CSS Cascading Level 3, 6.1); important ones are marked.</summary>
    public List<CssDeclaration> For(SvgNode node)
    {
        if (_rules.Count == 0) return [];
        var matching = new List<int>();
        void Look(string key)
        {
            if (!_byKey.TryGetValue(key, out var list)) return;
            foreach (var i in list)
            {
                if (_rules[i].Selector.Matches(node, budget)) matching.Add(i);
            }
        }
        foreach (var i in _general)
        {
            if (_rules[i].Selector.Matches(node, budget)) matching.Add(i);
        }
        Look(node.Name);
        if (node.Id is { } id) Look("#" + id);
        foreach (var name in node.Classes)
        {
            budget.Work();
            Look("." + name);
        }
        if (matching.Count == 0) return [];
        matching.Sort((a, b) => _rules[a].Selector.Specificity.CompareTo(_rules[b].Selector.Specificity) is var by and not 0 ? by : a.CompareTo(b));
        var declarations = new List<CssDeclaration>();
        foreach (var i in matching)
        {
            budget.Work(_rules[i].Declarations.Count);
            declarations.AddRange(_rules[i].Declarations);
        }
        return declarations;
    }
}
