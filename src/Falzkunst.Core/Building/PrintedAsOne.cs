using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Geometry.Overlay;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Building;

/// <summary>Pieces and lines as one printed piece: only its outer edge is cut, all that lies inside is printed.</summary>
public static class PrintedAsOne
{
    /// <summary>One piece of several, the lowest of them with their common outline; of one piece all lines but its outline are printed.</summary>
    /// <param name="design">The pieces.</param>
    /// <param name="pieces">Ids of those that become one.</param>
    /// <param name="drawer">Colours of their stocks.</param>
    /// <exception cref="EditRefused">One of them is gone or locked, or they do not hang together.</exception>
    public static Design Make(Design design, ImmutableArray<string> pieces, Drawer drawer)
    {
        if (pieces.IsDefaultOrEmpty) throw new EditRefused(Reason.PieceGone);
        var ids = pieces.ToHashSet();
        foreach (var id in ids) design.Require(id);
        var all = design.Pieces.Where(p => ids.Contains(p.Id)).ToList();
        if (all.Find(p => p.Locked) is { } locked) throw new EditRefused(Reason.Locked, locked.Name);
        var host = all[0];
        var made = all.Count == 1 ? Inside(host) : Together(host, all, drawer);
        return (design with { Pieces = [.. design.Pieces.Where(p => p == host || !ids.Contains(p.Id))] }).With(host.Id, _ => made);
    }

    /// <summary>The outline grown round the printed areas of its piece that hang over it.</summary>
    /// <exception cref="EditRefused">Nothing hangs over, or it would fall into parts.</exception>
    public static Design Follow(Design design, string piece) => design.With(piece, p =>
    {
        if (p.Locked) throw new EditRefused(Reason.Locked, p.Name);
        var areas = p.Items.SelectMany(i => i.LinesOn(p)).Where(l => l is { Operation: Operation.Print, Path.IsClosed: true } && PrintLook.Of(l).Fill is not null).Select(l => AreaRings.Inside(l.Path)).ToList();
        var outline = Outline([AreaRings.Inside(p.Outline.Path), .. areas], p.Name);
        return outline.Equals(p.Outline.Path) ? throw new EditRefused(Reason.NothingHangsOver, p.Name) : p with { Outline = p.Outline with { Path = outline }, Follows = null };
    });

    private static Piece Together(Piece host, List<Piece> all, Drawer drawer)
    {
        var back = host.Place.Inverse();
        var outline = Outline([.. all.Select(p => AreaRings.Inside(p.Outline.Path.Map(p.Place.Then(back))))], host.Name);
        // The lowest piece's own paper shows where its outline is no longer the edge.
        var isGrown = !outline.Equals(host.Outline.Path);
        var items = new List<Item>();
        var shape = NextShape(all);
        if (isGrown) items.Add(AreaOf(host.Outline, drawer.ColourOf(host.Stock), shape++));
        items.AddRange(Inside(host).Items);
        foreach (var part in all.Skip(1))
        {
            var map = part.Place.Then(back);
            var inside = Inside(part);
            var fill = part.Outline.Look.Fill ?? drawer.ColourOf(part.Stock);
            // A hole of a printed part shows what lies below it: ring and holes are one shape.
            items.Add(AreaOf(part.Outline, fill, shape).Under(map));
            items.AddRange(part.RingLines.Skip(1).Select(hole => AreaOf(hole, fill, shape).Under(map)));
            var holes = part.RingLines.Skip(1).Select(l => l.Id).ToHashSet();
            items.AddRange(inside.Items.Where(i => !holes.Contains(i.Id)).Select(i => i.Under(map)));
            shape++;
        }
        var bare = host with { Outline = host.Outline with { Path = outline }, Items = [], Follows = null, List = null };
        return bare.Plus(items);
    }

    private static int NextShape(List<Piece> all) => 1 + all.SelectMany(p => p.Lines).Select(l => l.Shape ?? 0).DefaultIfEmpty().Max();

    private static Line AreaOf(Line ring, string fill, int shape) =>
        new("", ring.Path, Operation.Print, ring.Look with { Fill = fill, Stroke = null, Closed = true }, ring.Name, null) { Painted = new PrintLook(fill, null) { EvenOdd = true }, Shape = shape };

    /// <summary>A piece of which every line but the outline that a blade would follow is printed as its file painted it.</summary>
    private static Piece Inside(Piece piece) => piece.EachWorked(item =>
    {
        if (item.Id == piece.Outline.Id || item.Operation != Operation.Cut) return item;
        var printed = item.With(Operation.Print);
        // The hole of a filled shape was no line that anybody saw.
        var isHole = item is Line line && line.Shape is not null && line.Shape == piece.Outline.Shape && line.Art == piece.Outline.Art && line.Painted?.Band is null;
        return isHole ? item.With(Operation.Aid) : printed;
    });

    private static Path Outline(IReadOnlyList<AreaRings> areas, string name)
    {
        try
        {
            return PathAreas.Combine(Combination.Unite, areas) is [var only] ? only.Outline : throw new EditRefused(Reason.NotTogether, name);
        }
        catch (BudgetSpent)
        {
            throw new EditRefused(Reason.TooIntricate);
        }
    }
}
