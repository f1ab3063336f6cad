using Falzkunst.Core.Designs;

namespace Falzkunst.Core.Running;

/// <summary>The lines of one key run in one pass.</summary>
public readonly record struct PassKey(Stage Stage, Operation Operation, string? Ink, LineWork Work)
{
    public static PassKey FromLine(SheetLine line) => new(line.Stage, line.Operation, line.Ink, line.Work);

    /// <summary>Such as "Inner cuts" or "Emboss, from the back".</summary>
    public string Title => Stage.Title() + (Work.FromBack ? ", from the back" : "");
}

/// <summary>Lines gathered into passes in the order of the law of paper; for the plan and for files alike.</summary>
public static class PassOrder
{
    /// <summary>What is worked from the back comes first, then stage by stage; inks and tips of a stage one after the other.</summary>
    public static IReadOnlyList<IGrouping<PassKey, SheetLine>> Group(IEnumerable<SheetLine> lines) =>
    [
        .. lines.GroupBy(PassKey.FromLine)
            .OrderByDescending(g => g.Key.Work.FromBack)
            .ThenBy(g => g.Key.Stage)
            .ThenBy(g => g.Key.Ink, StringComparer.Ordinal)
            .ThenBy(g => g.Key.Work.TipMm),
    ];
}
