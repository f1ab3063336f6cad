using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Checking;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Editing;

/// <summary>Lines drawn, bent, moved from piece to piece; pieces taken apart and put together.</summary>
public static class Reworking
{
    /// <summary>A line ends at the paper's edge, give or take this much, mm.</summary>
    private const double SlackMm = 0.01;

    /// <summary>A shape drawn measures at least this much one way, mm.</summary>
    private const double LeastShapeMm = 0.05;

    /// <summary>A part shorter than this is given to nobody, mm.</summary>
    private const double LeastPartMm = 0.05;

    /// <summary>A shape drawn on a piece; on none it becomes a piece of its own if it is cut and closed, else a line on no piece.</summary>
    /// <param name="design">The design.</param>
    /// <param name="onto">Id of the piece; null for none.</param>
    /// <param name="shape">The shape, mm on the card.</param>
    /// <param name="operation">What is done along it.</param>
    /// <param name="stock">Stock of a new piece.</param>
    public static Design Draw(Design design, string? onto, BasicShape shape, Operation operation, string stock)
    {
        var path = shape.ToPath();
        if (!path.Bounds.Min.IsFinite || Math.Max(path.Bounds.Width, path.Bounds.Height) is < LeastShapeMm or > Arranging.MostMm)
            throw EditRefused.RangeMm(Measure.ShapeSize, LeastShapeMm, Arranging.MostMm, "width");
        var look = Look.DrawnHere with { Closed = path.IsClosed };
        var line = new Line("", path, operation, look, shape.Word, WorkedItem.InkFor(operation, look));
        if (onto is not null) return design.With(onto, p => Arranging.Unlocked(p).Plus(line.Under(p.Place.Inverse())));
        if (operation != Operation.Cut || !path.IsClosed) return design.PlusLoose(line);
        var name = PieceNaming.Wished(char.ToUpperInvariant(shape.Word[0]) + shape.Word[1..], design);
        return design.Plus(design.Pieces.Length, [Piece.FromLines("", name, stock, Affine.Identity, [line]).AtHome()]);
    }

    /// <summary>A line along the edge of a piece, which follows its outline from then on.</summary>
    /// <exception cref="EditRefused">The distance is out of reach, or leaves nothing.</exception>
    public static Design AlongEdge(Design design, AddEdgeLine edit)
    {
        if (!(edit.InsetMm is >= EdgeLine.LeastMm and <= EdgeLine.MostMm)) throw EditRefused.RangeMm(Measure.EdgeInset, EdgeLine.LeastMm, EdgeLine.MostMm, "inset");
        var item = new EdgeLine("", edit.InsetMm, edit.Corners, edit.Operation, WorkedItem.InkFor(edit.Operation, Look.DrawnHere));
        return design.With(edit.Piece, p => item.LinesOn(Arranging.Unlocked(p)).IsEmpty ? throw new EditRefused(Reason.NoEdgeLine, p.Name) { Field = "inset" } : p.Plus(item));
    }

    /// <summary>Items that follow from something become the lines that follow from them now.</summary>
    /// <exception cref="EditRefused">None of them follows from anything.</exception>
    public static Design MakePlain(Design design, ImmutableArray<PickedLines> items)
    {
        var before = design;
        foreach (var some in items)
        {
            design = design.With(some.Piece, piece =>
            {
                piece.RequireWorked(some.Ids);
                var made = Arranging.Unlocked(piece).Items.Where(i => i is not Line && some.Ids.Contains(i.Id)).ToList();
                return made.Count == 0 ? piece : piece.Without(made.Select(i => i.Id)).Plus(made.SelectMany(i => i.LinesOn(piece)));
            });
        }
        return design.Pieces.SequenceEqual(before.Pieces) ? throw new EditRefused(Reason.PlainAlready) : design;
    }

    /// <summary>Lines taken away altogether; an outline goes only with its piece.</summary>
    public static Design Remove(Design design, ImmutableArray<PickedLines> lines) => lines.Aggregate(design, (d, some) => d.With(some.Piece, p =>
    {
        Arranging.Unlocked(p).RequireWorked(some.Ids);
        return some.Ids.Contains(p.Outline.Id) ? throw new EditRefused(Reason.OutlineNotRemoved) : p.Without(some.Ids);
    }));

    public static Design RemoveLoose(Design design, ImmutableArray<string> lines) =>
        design with { Loose = [.. design.Loose.Where(l => !lines.Contains(l.Id))] };

    /// <summary>A line in the card's coordinates, its way back to its start written out: nodes and segments are counted on it.</summary>
    public static Path OnCard(Piece piece, string line) => PathNodes.WrittenOut(piece.Require([line])[0].Path.Map(piece.Place));

    /// <summary>A line after a change at its nodes, in the card's coordinates.</summary>
    /// <exception cref="EditRefused">There is no such node, or it cannot be spared.</exception>
    public static Path Bent(Piece piece, string line, NodeChange change) => change.Apply(OnCard(piece, line));

    /// <summary>A line of a piece bent by its nodes. The change is made in card coordinates.</summary>
    public static Design Bend(Design design, string piece, string line, NodeChange change) => design.With(piece, p =>
    {
        var now = Arranging.Unlocked(p).Require([line])[0];
        var bent = Bent(p, line, change).Map(p.Place.Inverse());
        if (p.RoleOf(now) != LineRole.Inner && Math.Abs(bent.SignedArea) < 1e-6) throw new EditRefused(Reason.NoAreaLeft);
        return p.EachLine([line], l => l with { Path = bent }).AtHome();
    });

    /// <summary>Closed lines of a piece made pieces of their own, with what lies inside each; they lie right on top of it.</summary>
    /// <param name="design">The design.</param>
    /// <param name="piece">Id of the piece.</param>
    /// <param name="lines">The lines; none for all openings.</param>
    /// <param name="keepOpenings">The piece keeps an opening where each lay.</param>
    public static Design TakeApart(Design design, string piece, ImmutableArray<string> lines, bool keepOpenings)
    {
        var whole = Arranging.Unlocked(design.Require(piece));
        ImmutableArray<string> ids = lines.IsEmpty ? [.. whole.Lines.Where(l => whole.RoleOf(l) == LineRole.Opening).Select(l => l.Id)] : lines;
        if (ids.IsEmpty) throw new EditRefused(Reason.NoOpenings, whole.Name);
        var chosen = whole.Require(ids);
        if (chosen.Any(l => l.Id == whole.Outline.Id || !l.Path.IsClosed)) throw new EditRefused(Reason.ClosedLinesOnly);
        var names = design.Pieces.Select(p => p.Name).ToHashSet();
        var parts = new List<Piece>();
        var gone = keepOpenings ? new HashSet<string>() : [.. ids];
        // The smallest first, so that what lies in two of them goes with the smaller one.
        foreach (var ring in chosen.OrderBy(l => Math.Abs(l.Path.SignedArea)))
        {
            var inside = new RegionIndex([ring.Path.Flat.ToArray()]);
            var within = whole.Lines.Skip(1).Where(l => !ids.Contains(l.Id) && !gone.Contains(l.Id) && inside.Contains(Sampling.Midpoints(l.Path, 1, 8)[0])).ToList();
            gone.UnionWith(within.Select(l => l.Id));
            var part = Piece.FromLines("", PieceNaming.Free(whole.Name, names), whole.Stock, whole.Place, [(Line)ring.With(Operation.Cut), .. within]);
            parts.Add(part.AtHome() with { Quantity = whole.Quantity, AllowedTurns = whole.AllowedTurns, Art = whole.Art });
        }
        // A line that stays in place of a part taken out of it is cut there: else no opening would be left.
        var left = keepOpenings ? whole.EachLine(ids, l => l.IsCutThrough ? l : (Line)l.With(Operation.Cut)).Without(gone) : whole.Without(gone);
        var at = design.Pieces.IndexOf(whole);
        return (design with { Pieces = design.Pieces.SetItem(at, left) }).Plus(at + 1, parts);
    }

    /// <summary>Pieces that lie inside another become openings and lines of that one.</summary>
    /// <exception cref="EditRefused">None of them holds all the others.</exception>
    public static Design Merge(Design design, ImmutableArray<string> pieces)
    {
        if (pieces.Length < 2) throw new EditRefused(Reason.MergeTwo);
        var all = pieces.Select(design.Require).Select(Arranging.Unlocked).ToList();
        var host = all.MaxBy(p => Math.Abs(p.Outline.Path.SignedArea))!;
        foreach (var part in all.Where(p => p != host))
        {
            if (!Checks.Holds(host, part)) throw new EditRefused(Reason.NotInside, part.Name, host.Name);
            var map = part.Place.Then(host.Place.Inverse());
            design = design.With(host.Id, p => p.Plus(part.Items.Prepend(part.Outline).Select(i => i.Under(map))));
            design = design with { Pieces = design.Pieces.RemoveAll(p => p.Id == part.Id) };
        }
        return design;
    }

    /// <summary>Lines given from one piece to another where they lie; from no piece where <paramref name="from"/> is null.</summary>
    public static Design Give(Design design, string? from, ImmutableArray<string> lines, string to)
    {
        var target = Arranging.Unlocked(design.Require(to));
        List<Line> taken;
        if (from is null)
        {
            taken = [.. design.Loose.Where(l => lines.Contains(l.Id))];
            if (taken.Count != lines.Length || taken.Count == 0) throw new EditRefused(Reason.LinesGone);
            design = RemoveLoose(design, lines);
        }
        else
        {
            if (from == to) throw new EditRefused(Reason.OnThatPieceAlready);
            var source = Arranging.Unlocked(design.Require(from));
            var own = source.Require(lines);
            if (own.Any(l => l.Id == source.Outline.Id)) throw new EditRefused(Reason.OutlineNotGiven);
            taken = [.. own.Select(l => l with { Path = l.Path.Map(source.Place) })];
            design = design.With(from, p => p.Without(lines));
        }
        var back = target.Place.Inverse();
        return design.With(to, p => p.Plus(taken.Select(l => l with { Path = l.Path.Map(back) })));
    }

    /// <summary>What of a line lies past the edge of its piece is cut off, or given to the pieces that it lies on.</summary>
    public static Design EndAtEdge(Design design, string piece, string line, bool shareOut)
    {
        var owner = Arranging.Unlocked(design.Require(piece));
        var model = owner.Require([line])[0];
        if (model.Id == owner.Outline.Id) throw new EditRefused(Reason.OutlineIsEdge);
        var paper = owner.Paper;
        var parts = PathClip.Parts(model.Path, p => paper.Holds(p, SlackMm));
        var kept = parts.Where(p => p.Inside).Select(p => p.Part);
        var others = shareOut ? parts.Where(p => !p.Inside).Select(p => p.Part.Map(owner.Place)).ToList() : [];
        design = design.With(piece, p => p.Without([line]).Plus(kept.Select(part => model with { Path = part, Look = model.Look with { Closed = part.IsClosed } })));
        foreach (var under in others.Count == 0 ? [] : design.Pieces.Where(p => p.Id != piece && !p.Locked).Reverse().ToList())
        {
            var (back, sheet) = (under.Place.Inverse(), under.Paper);
            var clipped = others.SelectMany(part => PathClip.Parts(part, p => sheet.Holds(back.Apply(p), SlackMm))).ToList();
            // What lies in the air between pieces belongs to none.
            others = [.. clipped.Where(c => !c.Inside).Select(c => c.Part)];
            var given = clipped.Where(c => c.Inside && c.Part.Length > LeastPartMm)
                .Select(c => model with { Path = c.Part.Map(back), Look = model.Look with { Closed = false } }).ToList();
            if (given.Count > 0) design = design.With(under.Id, p => p.Plus(given));
        }
        return design;
    }
}
