using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Running;

namespace Falzkunst.Formats.Production;

/// <summary>What goes to a machine for one sheet: groups of lines in the order they run.</summary>
/// <param name="Width">Width of the sheet, mm.</param>
/// <param name="Height">Height of the sheet, mm.</param>
/// <param name="Groups">One group for each pass.</param>
public sealed record ProductionPage(double Width, double Height, ImmutableArray<ProductionGroup> Groups)
{
    /// <summary>The passes of a plan as they run, perforations as their dashes.</summary>
    public static ProductionPage FromPlan(RunPlan plan, double width, double height) => new(width, height,
        [.. plan.Passes.Select(p => new ProductionGroup(p.Operation, p.Title, p.Ink, [.. p.Lines.SelectMany(l => l.Strokes)]) { Times = p.Settings.Times, Settings = p.Settings, IsFaceDown = p.FaceDown, IsHalfCut = p.HalfCut })]);

    /// <summary>One side alone, as it lies up; null where nothing is run on it.</summary>
    public ProductionPage? OfSide(bool isFaceDown) => Groups.Where(g => g.IsFaceDown == isFaceDown).ToImmutableArray() is { IsEmpty: false } groups ? this with { Groups = groups } : null;

    /// <summary>The page with everything under a map, corrected by where the print lies say.</summary>
    public ProductionPage Under(Affine map) => this with { Groups = [.. Groups.Select(g => g with { Paths = [.. g.Paths.Select(p => p.Map(map))] })] };

    /// <summary>Lines as drawn, each whole, by the law of paper and on short ways.</summary>
    public static ProductionPage FromLines(IEnumerable<SheetLine> lines, double width, double height)
    {
        var at = new Point(0, height);
        var groups = ImmutableArray.CreateBuilder<ProductionGroup>();
        foreach (var pass in PassOrder.Group(lines))
        {
            var paths = TravelOrder.Arrange([.. pass.Select(l => l.Path)], at).Select(v => v.Path).ToImmutableArray();
            groups.Add(new ProductionGroup(pass.Key.Operation, pass.Key.Title, pass.Key.Ink, paths) { IsHalfCut = pass.Key.Work.HalfCut });
            at = paths[^1].IsClosed ? paths[^1].Start : paths[^1].End;
        }
        return new ProductionPage(width, height, groups.ToImmutable());
    }
}

/// <summary>Lines that one tool runs one after the other.</summary>
/// <param name="Operation">Their operation.</param>
/// <param name="Title">Name of the pass.</param>
/// <param name="Ink">Colour of pen or foil, null for others.</param>
/// <param name="Paths">In the sheet's coordinates, in order and direction.</param>
public sealed record ProductionGroup(Operation Operation, string Title, string? Ink, ImmutableArray<Path> Paths)
{
    /// <summary>How often each line is run, one time right after the other.</summary>
    public int Times { get; init; } = 1;

    /// <summary>Force, speed and so on; null where nothing is said of them.</summary>
    public ToolSettings? Settings { get; init; }

    /// <summary>Through the top layer only.</summary>
    public bool IsHalfCut { get; init; }

    /// <summary>The sheet lies face down, and its lines are mirrored.</summary>
    public bool IsFaceDown { get; init; }
}
