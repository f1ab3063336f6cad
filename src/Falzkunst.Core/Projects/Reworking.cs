using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Checking;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Projects;

/// <summary>Lines drawn, bent, moved from piece to piece; pieces taken apart and put together.</summary>
public static class Reworking
{
    /// <summary>A line ends at the paper's edge, give or take this much, mm.</summary>
    private const double SlackMm = 0.01;

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
        if (!path.Bounds.Min.IsFinite || Math.Max(path.Bounds.Width, path.Bounds.Height) is < 0.05 or > Arranging.MostMm)
            throw new EditRefused($"A shape measures between 0.05 and {Arranging.MostMm} mm.");
        var look = Look.DrawnHere with { Closed = path.IsClosed };
        var line = new Line("", RoleOf(operation, path), operation, look, shape.Word, Line.InkFor(operation, look));
        if (onto is not null)
        {
            return design.With(onto, p => Arranging.Unlocked(p).With(line with { Id = p.NextLine }, path.Map(p.Place.Inverse())));
        }
        if (line.Role != LineRole.Opening)
            return design with { Loose = design.Loose.Add(new LooseLine(line with { Id = Edits.NextLoose(design), Role = LineRole.Inner }, path)) };
        var name = PieceNaming.Wished(char.ToUpperInvariant(shape.Word[0]) + shape.Word[1..], design);
        var piece = new Piece($"p{design.NextPiece}", name, stock, 1, Affine.Identity, new PieceShape([path]), [line with { Id = "l1", Role = LineRole.Outline }]).AtHome();
        return design with { Pieces = design.Pieces.Add(piece), NextPiece = design.NextPiece + 1 };
    }

    /// <summary>Lines taken away altogether; the outline goes only with its piece.</summary>
    public static Design Remove(Design design, string piece, ImmutableArray<string> lines) => design.With(piece, p =>
    {
        var at = Arranging.Unlocked(p).Require(lines);
        return at.Contains(0) ? throw new EditRefused("Without its outline there is no piece. Take the whole piece out instead.") : p.Without(at);
    });

    public static Design RemoveLoose(Design design, ImmutableArray<string> lines) =>
        design with { Loose = [.. design.Loose.Where(l => !lines.Contains(l.Line.Id))] };

    /// <summary>A line of a piece bent by its nodes. The change is made in card coordinates.</summary>
    public static Design Bend(Design design, string piece, string line, NodeChange change) => design.With(piece, p =>
    {
        var at = Arranging.Unlocked(p).Require([line])[0];
        var path = PathNodes.WrittenOut(p.Shape.Paths[at].Map(p.Place));
        var bent = change.Apply(path).Map(p.Place.Inverse());
        if (p.Lines[at].Role != LineRole.Inner && Math.Abs(bent.SignedArea) < 1e-6) throw new EditRefused("That would leave no area inside the line.");
        return (p with { Shape = new PieceShape(p.Shape.Paths.SetItem(at, bent)) }).AtHome();
    });

    /// <summary>Closed lines of a piece made pieces of their own, with what lies inside each; they lie right on top of it.</summary>
    /// <param name="design">The design.</param>
    /// <param name="piece">Id of the piece.</param>
    /// <param name="lines">The lines; none for all openings.</param>
    /// <param name="keepOpenings">The piece keeps an opening where each lay.</param>
    public static Design TakeApart(Design design, string piece, ImmutableArray<string> lines, bool keepOpenings)
    {
        var whole = Arranging.Unlocked(design.Require(piece));
        var chosen = lines.IsEmpty ? [.. whole.Lines.Where(l => l.Role == LineRole.Opening).Select(l => l.Id)] : lines;
        if (chosen.IsEmpty) throw new EditRefused($"{whole.Name} has no openings. Pick a closed line on it to make that a piece of its own.");
        var at = whole.Require(chosen);
        if (at.Contains(0) || at.Any(i => !whole.Shape.Paths[i].IsClosed)) throw new EditRefused("Only closed lines other than the outline can become pieces of their own.");
        var names = design.Pieces.Select(p => p.Name).ToHashSet();
        var parts = new List<Piece>();
        var gone = keepOpenings ? new HashSet<int>() : [.. at];
        // The smallest first, so that what lies in two of them goes with the smaller one.
        foreach (var i in at.OrderBy(i => Math.Abs(whole.Shape.Paths[i].SignedArea)))
        {
            var inside = new RegionIndex([whole.Shape.Paths[i].Flat.ToArray()]);
            var within = Enumerable.Range(1, whole.Lines.Length - 1).Where(k => !at.Contains(k) && !gone.Contains(k) && inside.Contains(Sampling.Midpoints(whole.Shape.Paths[k], 1, 8)[0])).ToList();
            gone.UnionWith(within);
            var part = whole with
            {
                Id = $"p{design.NextPiece + parts.Count}", Name = PieceNaming.Free(whole.Name, names), Hidden = false,
                Shape = new PieceShape([whole.Shape.Paths[i], .. within.Select(k => whole.Shape.Paths[k])]),
                Lines = [(whole.Lines[i] with { Role = LineRole.Outline }).With(Operation.Cut), .. within.Select(k => whole.Lines[k])],
            };
            parts.Add(part.AtHome());
        }
        var left = gone.Count == 0 ? whole : whole.Without([.. gone]);
        return design with
        {
            Pieces = design.Pieces.SetItem(design.Pieces.IndexOf(whole), left).InsertRange(design.Pieces.IndexOf(whole) + 1, parts),
            NextPiece = design.NextPiece + parts.Count,
        };
    }

    /// <summary>Pieces that lie inside another become openings and lines of that one.</summary>
    /// <exception cref="EditRefused">None of them holds all the others.</exception>
    public static Design Merge(Design design, ImmutableArray<string> pieces)
    {
        if (pieces.Length < 2) throw new EditRefused("Merging takes two or more pieces. Pick another.");
        var all = pieces.Select(design.Require).Select(Arranging.Unlocked).ToList();
        var host = all.MaxBy(p => Math.Abs(p.Shape.Paths[0].SignedArea))!;
        foreach (var part in all.Where(p => p != host))
        {
            if (!Checks.Holds(host, part)) throw new EditRefused($"{part.Name} does not lie inside {host.Name}. A piece has one outline, so only what lies inside it can be merged into it.");
            var map = part.Place.Then(host.Place.Inverse());
            var merged = design.Require(host.Id);
            foreach (var (line, path) in part.Drawn)
                merged = merged.With(line with { Id = merged.NextLine, Role = line.Role == LineRole.Inner ? LineRole.Inner : LineRole.Opening }, path.Map(map));
            design = design.With(host.Id, _ => merged);
            design = design with { Pieces = design.Pieces.RemoveAll(p => p.Id == part.Id) };
        }
        return design;
    }

    /// <summary>Lines given from one piece to another where they lie; from no piece where <paramref name="from"/> is null.</summary>
    public static Design Give(Design design, string? from, ImmutableArray<string> lines, string to)
    {
        var target = Arranging.Unlocked(design.Require(to));
        var taken = new List<(Line Line, Path Path)>();
        if (from is null)
        {
            taken.AddRange(design.Loose.Where(l => lines.Contains(l.Line.Id)).Select(l => (l.Line, l.Path)));
            if (taken.Count != lines.Length) throw new EditRefused("Those lines are no longer there. Reload the page to see what is there now.");
            design = RemoveLoose(design, lines);
        }
        else
        {
            if (from == to) throw new EditRefused("The lines are on that piece already.");
            var source = Arranging.Unlocked(design.Require(from));
            var at = source.Require(lines);
            if (at.Contains(0)) throw new EditRefused("An outline stays with its piece. To make a piece an opening of another, merge them.");
            taken.AddRange(at.Select(i => (source.Lines[i], source.Shape.Paths[i].Map(source.Place))));
            design = design.With(from, p => p.Without(at));
        }
        var back = target.Place.Inverse();
        foreach (var (line, path) in taken)
            target = target.With(line with { Id = target.NextLine, Role = RoleOf(line.Operation, path) }, path.Map(back));
        return design.With(to, _ => target);
    }

    /// <summary>What of a line lies past the edge of its piece is cut off, or given to the pieces that it lies on.</summary>
    public static Design EndAtEdge(Design design, string piece, string line, bool shareOut)
    {
        var owner = Arranging.Unlocked(design.Require(piece));
        var at = owner.Require([line])[0];
        if (at == 0) throw new EditRefused("An outline is the edge itself.");
        var paper = PaperOf.Piece(owner);
        var parts = PathClip.Parts(owner.Shape.Paths[at], p => paper.Holds(p, SlackMm));
        var kept = parts.Where(p => p.Inside).Select(p => p.Part).ToList();
        var model = owner.Lines[at];
        var others = shareOut ? parts.Where(p => !p.Inside).Select(p => p.Part.Map(owner.Place)).ToList() : [];
        var changed = owner.Without([at]);
        foreach (var part in kept) changed = changed.With(model with { Id = changed.NextLine, Look = model.Look with { Closed = part.IsClosed } }, part);
        design = design.With(piece, _ => changed);
        foreach (var under in others.Count == 0 ? [] : design.Pieces.Where(p => p.Id != piece && !p.Locked).Reverse().ToList())
        {
            var (back, sheet) = (under.Place.Inverse(), PaperOf.Piece(under));
            var clipped = others.SelectMany(part => PathClip.Parts(part, p => sheet.Holds(back.Apply(p), SlackMm))).ToList();
            // What lies in the air between pieces belongs to none.
            others = [.. clipped.Where(c => !c.Inside).Select(c => c.Part)];
            foreach (var (part, _) in clipped.Where(c => c.Inside && c.Part.Length > LeastPartMm))
                design = design.With(under.Id, p => p.With(model with { Id = p.NextLine, Look = model.Look with { Closed = false } }, part.Map(back)));
        }
        return design;
    }

    private static LineRole RoleOf(Operation operation, Path path) => operation == Operation.Cut && path.IsClosed ? LineRole.Opening : LineRole.Inner;
}
