using Falzkunst.Core.Budgets;

namespace Falzkunst.Formats.Svg;

/// <summary>Which declarations hold for an element, weakest first (CSS Cascading Level 3, 6.1; SVG 2, 6.6).</summary>
internal sealed class SvgCascade(SvgStyleSheet sheet, Budget budget)
{
    /// <summary>
    /// Of the rules and the style attribute: rules by specificity and order, the style attribute, then what is marked important
    /// of the rules, then of the style attribute.
    /// </summary>
    public IEnumerable<CssDeclaration> Cascade(SvgNode node)
    {
        var rules = sheet.For(node);
        var inline = node["style"] is { Length: > 0 } text ? new CssReader(text, budget).Declarations().ToList() : [];
        budget.Work(20L * (rules.Count + inline.Count));
        return rules.Where(d => !d.Important).Concat(inline.Where(d => !d.Important)).Concat(rules.Where(d => d.Important)).Concat(inline.Where(d => d.Important));
    }
}
