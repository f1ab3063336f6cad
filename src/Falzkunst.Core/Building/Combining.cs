using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Geometry.Overlay;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Building;

/// <summary>What becomes of the pieces that another is made of.</summary>
public enum WhatCuts
{
    /// <summary>They go.</summary>
    Goes,

    /// <summary>They stay as they are, to be glued in or behind.</summary>
    Stays,

    /// <summary>They stay hidden, are not made themselves, and what was made of them follows them.</summary>
    IsFollowed,
}

/// <summary>What was made of pieces.</summary>
/// <param name="Design">The design after it.</param>
/// <param name="Made">Ids of what was made, the largest part first.</param>
/// <param name="LostMm">Length of lines that lie where no paper is left, mm.</param>
/// <param name="LostItems">Names of words and pictures that lie where no paper is left.</param>
public sealed record Combined(Design Design, ImmutableArray<string> Made, double LostMm, ImmutableArray<string> LostItems);

/// <summary>Pieces united, taken out of each other, cut to what they share, and parted along a line; curves stay curves.</summary>
public static class Combining
{
    /// <summary>A line ends at the paper's edge, give or take this much, mm.</summary>
    private const double SlackMm = 0.01;

    /// <summary>What is left of a line is no line if it is shorter, mm.</summary>
    private const double LeastLineMm = 0.05;

    /// <summary>Parts smaller than this are specks that a cut along nearly the same line leaves, mm².</summary>
    private const double SpeckMm2 = 0.05;

    /// <summary>An open line whose ends lie no farther apart is taken as closed, mm.</summary>
    public const double ClosableMm = 0.5;

    /// <summary>Pieces made one.</summary>
    /// <param name="design">The design.</param>
    /// <param name="how">United, the others taken out of the keeper, or what all have.</param>
    /// <param name="pieces">Ids of the pieces, two or more.</param>
    /// <param name="keeper">Id of that of them whose stock, name and lines remain.</param>
    /// <param name="others">What becomes of the others.</param>
    /// <exception cref="EditRefused">Fewer than two, one of them is locked, or nothing would be left.</exception>
    public static Combined Combine(Design design, Combination how, ImmutableArray<string> pieces, string keeper, WhatCuts others)
    {
        if (pieces.Distinct().Count() < 2 || !pieces.Contains(keeper)) throw new EditRefused(Reason.CombineTwo);
        var kept = Mats.Unlocked(design.Require(keeper));
        var rest = pieces.Where(p => p != keeper).Distinct().Select(id => Mats.Unlocked(design.Require(id))).ToList();
        // The keeper comes first: what is subtracted is subtracted from it, and where lines coincide its own are taken.
        var parts = Sound(PathAreas.Combine(how, [PieceAreas.Of(kept), .. rest.Select(p => PieceAreas.In(p, kept))]));
        if (parts.IsEmpty) throw new EditRefused(Reason.NothingInCommon, kept.Name, rest[0].Name);
        if (others == WhatCuts.IsFollowed) return Live(design, how, kept, rest, parts);
        var carried = how == Combination.Subtract || others == WhatCuts.Stays ? [] : rest;
        var (made, lost, lostItems) = Dressed(kept, carried, parts, design);
        var gone = others == WhatCuts.Goes ? rest.Select(p => p.Id).ToHashSet() : [];
        var after = design with { Pieces = [.. design.Pieces.Select(p => p.Id == keeper ? made[0] : p).Where(p => !gone.Contains(p.Id))] };
        var number = after.NextPiece;
        after = after.Plus(IndexOf(after, keeper) + 1, [.. made.Skip(1)]);
        return new Combined(after, [keeper, .. Enumerable.Range(number, made.Count - 1).Select(Design.PieceId)], lost, lostItems);
    }

    /// <summary>A piece with closed lines on it taken as areas: united with it, taken out of it, or all that is kept of it.</summary>
    /// <exception cref="EditRefused">A line is open by more than can be closed, or nothing would be left.</exception>
    public static Combined WithLines(Design design, Combination how, string piece, ImmutableArray<string> lines)
    {
        var kept = Mats.Unlocked(design.Require(piece));
        var shapes = kept.Require(lines);
        if (shapes.Any(l => l.Id == kept.Outline.Id)) throw new EditRefused(Reason.OutlineIsEdge);
        foreach (var line in shapes.Where(l => !l.Path.IsClosed))
        {
            var gap = line.Path.Start.DistanceTo(line.Path.End);
            if (gap > ClosableMm) throw new EditRefused(Reason.LineOpen, line.Name ?? "A line", new Mm(gap));
        }
        var bare = kept.Without(lines);
        var areas = shapes.Select(l => AreaRings.Inside(l.Path.IsClosed ? l.Path : new Path(l.Path.Start, l.Path.Segments, closed: true)));
        var paper = PieceAreas.Of(bare);
        // Several lines are one shape together, of which each part is kept by itself: one may lie in the opening of another.
        var parts = Sound(how == Combination.Intersect
            ? [.. PathAreas.Combine(Combination.Unite, [.. areas]).SelectMany(part => PathAreas.Combine(how, paper, AreaRings.Of(part))).OrderByDescending(p => p.Area)]
            : PathAreas.Combine(how, [paper, .. areas]));
        if (parts.IsEmpty) throw new EditRefused(Reason.NothingLeft, kept.Name);
        var (made, lost, lostItems) = Dressed(bare, [], parts, design);
        return Parted(design, piece, made, lost, lostItems);
    }

    /// <summary>A piece in two or more along a line: one of its own, or one on no piece. An open line goes on straight to the edge at both ends.</summary>
    /// <param name="design">The design.</param>
    /// <param name="piece">Id of the piece.</param>
    /// <param name="line">Id of the line.</param>
    /// <exception cref="EditRefused">The line does not part it.</exception>
    public static Combined Part(Design design, string piece, string line)
    {
        var whole = Mats.Unlocked(design.Require(piece));
        var along = whole.Require([line])[0];
        if (along.Id == whole.Outline.Id) throw new EditRefused(Reason.OutlineIsEdge);
        var bare = whole.Without([line]);
        var (paper, side) = (PieceAreas.Of(bare), AreaRings.Inside(SideOf(along.Path, whole.Size)));
        var parts = Sound([.. PathAreas.Combine(Combination.Intersect, paper, side), .. PathAreas.Combine(Combination.Subtract, paper, side)]);
        if (parts.Length < 2) throw new EditRefused(Reason.PartsNothing, whole.Name);
        var (made, lost, lostItems) = Dressed(bare, [], [.. parts.OrderByDescending(p => p.Area)], design);
        return Parted(design, piece, made, lost, lostItems);
    }

    /// <summary>Each of some pieces cut to the outline of another, which stays.</summary>
    /// <exception cref="EditRefused">Nothing would be left of one of them.</exception>
    public static Combined Crop(Design design, ImmutableArray<string> pieces, string shape)
    {
        var (lost, lostItems, made) = (0.0, new List<string>(), new List<string>());
        foreach (var id in pieces.Where(p => p != shape).Distinct())
        {
            var one = Combine(design, Combination.Intersect, [id, shape], id, WhatCuts.Stays);
            design = one.Design;
            lost += one.LostMm;
            lostItems.AddRange(one.LostItems);
            made.AddRange(one.Made);
        }
        return made.Count == 0 ? throw new EditRefused(Reason.CombineTwo) : new Combined(design, [.. made], lost, [.. lostItems]);
    }

    private static Combined Live(Design design, Combination how, Piece kept, List<Piece> rest, ImmutableArray<PathArea> parts)
    {
        ImmutableArray<string> sources = [kept.Id, .. rest.Select(p => p.Id)];
        var names = design.Pieces.Select(p => p.Name).ToHashSet();
        var made = parts.Select((part, i) => Mats.PieceFor(PieceNaming.Free(kept.Name, names), kept.Stock, kept, part, new FromCombination(how, sources, i))).ToList();
        var number = design.NextPiece;
        var top = sources.Max(id => IndexOf(design, id));
        var after = design.Plus(top + 1, made);
        after = after with { Pieces = [.. after.Pieces.Select(p => sources.Contains(p.Id) ? p with { Hidden = true, Quantity = 0 } : p)] };
        return new Combined(after, [.. Enumerable.Range(number, made.Count).Select(Design.PieceId)], 0, []);
    }

    private static Combined Parted(Design design, string piece, List<Piece> made, double lost, ImmutableArray<string> lostItems)
    {
        var number = design.NextPiece;
        var at = IndexOf(design, piece);
        var after = (design with { Pieces = design.Pieces.SetItem(at, made[0]) }).Plus(at + 1, [.. made.Skip(1)]);
        return new Combined(after, [piece, .. Enumerable.Range(number, made.Count - 1).Select(Design.PieceId)], lost, lostItems);
    }

    private static ImmutableArray<PathArea> Sound(ImmutableArray<PathArea> parts) =>
        [.. parts.Where(p => p.Area > SpeckMm2).Select(p => p with { Openings = [.. p.Openings.Where(o => Math.Abs(o.SignedArea) > SpeckMm2)] })];

    /// <summary>The keeper in its new form, further parts as pieces beside it, with the lines, words and pictures of all that they are made of.</summary>
    internal static (List<Piece> Made, double LostMm, ImmutableArray<string> LostItems) Dressed(Piece kept, IReadOnlyList<Piece> others, ImmutableArray<PathArea> parts, Design design)
    {
        var names = design.Pieces.Select(p => p.Name).ToHashSet();
        var bare = parts.Select((part, i) => i == 0
            ? kept with { Outline = kept.Outline with { Path = part.Outline }, Items = [], Follows = null }
            : new Piece("", PieceNaming.Free(kept.Name, names), kept.Stock, kept.Quantity, kept.Place, kept.Outline with { Id = "l1", Path = part.Outline }, []) { NextItem = 2, AllowedTurns = kept.AllowedTurns, Art = kept.Art }).ToList();
        for (var i = 0; i < bare.Count; i++) bare[i] = bare[i].Plus(parts[i].Openings.Select(o => OpeningLike(kept, o)));
        var papers = bare.Select(b => b.Paper).ToList();
        var (lost, lostItems) = (0.0, new List<string>());
        foreach (var source in others.Prepend(kept))
        {
            var map = ReferenceEquals(source, kept) ? Affine.Identity : source.Place.Then(kept.Place.Inverse());
            foreach (var item in source.Items)
            {
                if (item is Line line)
                {
                    if (source.RoleOf(line) == LineRole.Opening) continue;
                    lost += Carry((Line)line.Under(map), bare, papers);
                }
                else if (item is EdgeLine && ReferenceEquals(source, kept))
                {
                    bare[0] = With(bare[0], item);
                }
                else
                {
                    var moved = item.Under(map);
                    var middle = Middle(moved, source, map);
                    var holder = papers.FindIndex(p => middle is not { } m || p.HoldsInOutline(m));
                    if (holder >= 0) bare[holder] = With(bare[holder], moved);
                    else lostItems.Add(item is TextItem text ? $"“{text.Brief(24)}”" : "a picture");
                }
            }
        }
        return ([.. bare.Select(b => b.AtHome())], lost, [.. lostItems]);

        static Piece With(Piece piece, Item item) => piece.Plus(item);
    }

    private static Line OpeningLike(Piece kept, Path opening)
    {
        // An opening that was there keeps its look and settings.
        var old = kept.Lines.Skip(1).FirstOrDefault(l => ReferenceEquals(l.Path, opening));
        return old ?? new Line("", opening, Operation.Cut, Look.DrawnHere with { Closed = true }, null, null);
    }

    private static Point? Middle(Item moved, Piece source, Affine map) => moved switch
    {
        TextItem text => source.Worked(text.Id) is TextItem old && old.PathsOn(source) is { IsEmpty: false } paths
            ? map.Apply(paths.Aggregate(Box.Empty, (b, p) => b.Include(p.Bounds)).Centre) : null,
        PlacedItem placed => placed.Bounds.Centre,
        _ => null,
    };

    /// <summary>What of a line lies on paper goes to the part that holds it; gives the length of what does not.</summary>
    private static double Carry(Line line, List<Piece> bare, List<Paper> papers)
    {
        var lost = line.Path.Length;
        for (var i = 0; i < bare.Count; i++)
        {
            var paper = papers[i];
            var kept = PathClip.Parts(line.Path, p => paper.Holds(p, SlackMm), p => paper.Holds(p)).Where(p => p.Inside && p.Part.Length > LeastLineMm).Select(p => p.Part).ToList();
            if (kept.Count == 0) continue;
            lost -= kept.Sum(p => p.Length);
            bare[i] = bare[i].Plus(kept.Select(part => line with { Path = part, Look = line.Look with { Closed = part.IsClosed } }));
        }
        return Math.Max(0, lost);
    }

    /// <summary>A closed line round one side of a line that goes on straight at both ends, all beyond a box but for the line itself.</summary>
    private static Path SideOf(Path line, Box box)
    {
        if (line.IsClosed) return line;
        var far = 2 * (box.Width + box.Height + line.Bounds.Width + line.Bounds.Height) + 10;
        var (first, last) = (Leaving(line), Leaving(line.Reversed()));
        var (from, to) = (line.Start - first * far, line.End - last * far);
        // Round from end to start by three corners on the left of the way, far outside.
        var chord = to - from;
        var unit = chord.Length > 1e-9 ? chord * (1 / chord.Length) : first;
        var left = new Point(unit.Y, -unit.X) * (4 * far);
        ImmutableArray<Segment> segments = [Segment.Straight(line.Start), .. line.Segments, Segment.Straight(to), Segment.Straight(to + left), Segment.Straight(from + left)];
        return new Path(from, segments, closed: true);
    }

    private static Point Leaving(Path line)
    {
        var d = new Curve(line.Start, line.Segments[0]).Tangent(0);
        return d.Length > 0 ? d * (1 / d.Length) : new Point(1, 0);
    }

    private static int IndexOf(Design design, string id) => design.Pieces.IndexOf(design.Require(id));
}
