using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Geometry.Overlay;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Building;

/// <summary>
/// Keeps pieces that follow from others in step with those. Asked after every edit, with the design before and after it, it makes anew
/// what follows from something that the edit changed, in the order in which things follow from each other.
/// </summary>
public static class Following
{
    /// <summary>Nodes that moved by no more than this are where they were, mm.</summary>
    private const double SameMm = 1e-6;

    /// <summary>The design after an edit, with all that follows from what the edit changed.</summary>
    public static Design Settle(Design before, Design after)
    {
        if (ReferenceEquals(before, after) || after.Pieces.All(p => p.Follows is null)) return after;
        var settled = after with { Pieces = [.. after.Pieces.Select(p => Freed(before.Find(p.Id), p))] };
        foreach (var id in InOrder(settled))
        {
            if (settled.Find(id) is { Follows: { } follows } piece) settled = Settled(before, settled, piece, follows);
        }
        return AreSame(settled.Pieces, after.Pieces) ? after : settled;
    }

    /// <summary>The very same pieces in the same order.</summary>
    internal static bool AreSame(ImmutableArray<Piece> a, ImmutableArray<Piece> b) => a.Length == b.Length && a.Zip(b).All(z => ReferenceEquals(z.First, z.Second));

    /// <summary>All of some pieces made anew, whatever they were: for copies of a list, of which each has words of its own.</summary>
    internal static Design MadeAnew(Design design)
    {
        foreach (var id in InOrder(design))
        {
            if (design.Find(id) is not { Follows: { } follows } piece) continue;
            design = Put(design, piece, Formed(design, piece, follows));
            design = WithWordParts(design, id);
        }
        return design;
    }

    /// <summary>The piece that follows, and all that follow it, in order; sources first.</summary>
    public static ImmutableArray<string> Followers(Design design, string source)
    {
        var found = new List<string> { source };
        foreach (var id in InOrder(design))
        {
            if (design.Require(id).Follows!.Sources.Any(found.Contains)) found.Add(id);
        }
        return [.. found.Skip(1)];
    }

    /// <summary>A piece whose outline or openings the edit changed by themselves follows nothing any more.</summary>
    private static Piece Freed(Piece? was, Piece now)
    {
        if (was?.Follows is not { } before || now.Follows is not { } after) return now;
        if (ReferenceEquals(was.Outline.Path, now.Outline.Path) && SameOpenings(was, now)) return now;
        var map = before.Frame.Inverse().Then(after.Frame);
        var own = after is FromWords { Of: null };
        if (own ? HasOwnWords(was, now) : IsSame(was.Outline.Path.Map(map), now.Outline.Path) && after.Openings.Length == before.Openings.Length
            && after.Openings.All(o => was.Find(o) is { } old && now.Find(o) is { } line && IsSame(old.Path.Map(map), line.Path))) return now;
        return Plain(now);
    }

    /// <summary>Words whose piece was mapped lie there as they did: else its outline was bent by itself.</summary>
    private static bool HasOwnWords(Piece was, Piece now) =>
        now.Follows is FromWords words && was.Worked(words.Text) is TextItem old && now.Worked(words.Text) is TextItem text && !Equals(old.Place, text.Place);

    private static bool SameOpenings(Piece was, Piece now) =>
        now.Follows!.Openings.AsSpan().SequenceEqual(was.Follows!.Openings.AsSpan()) && now.Follows.Openings.All(o => ReferenceEquals(was.Find(o)?.Path, now.Find(o)?.Path));

    private static bool IsSame(Path a, Path b) => a.Segments.Length == b.Segments.Length && a.Start.DistanceTo(b.Start) < SameMm
        && a.Segments.Zip(b.Segments).All(z => z.First.End.DistanceTo(z.Second.End) < SameMm && (!z.First.IsCubic || z.First.Handle1.DistanceTo(z.Second.Handle1) < SameMm));

    /// <summary>The piece standing for itself: words that were its form are gone, their outline stays.</summary>
    public static Piece Plain(Piece piece) => piece.Follows is FromWords { Of: null } words ? piece.Without([words.Text]) with { Follows = null } : piece with { Follows = null };

    private static Design Settled(Design before, Design now, Piece piece, Derivation follows)
    {
        var was = before.Find(piece.Id);
        if (follows.Sources.Any(s => now.Find(s) is null))
            return follows is FromWords ? now with { Pieces = now.Pieces.Remove(piece) } : Put(now, piece, piece with { Follows = follows with { Fault = FollowFault.SourceGone } });
        var isNew = was?.Follows is null || was.Follows.GetType() != follows.GetType() || !follows.Sources.AsSpan().SequenceEqual(was.Follows.Sources.AsSpan()) || !SameNumbers(was.Follows, follows);
        var hasChanged = isNew || follows.Fault is not null || follows.Sources.Any(s => HasChanged(before.Find(s), now.Require(s), follows)) || (follows is FromWords { Of: null } own && HasOtherWords(was!, piece, own));
        var laid = isNew || !follows.GoesAlong || follows.Sources.IsEmpty || before.Find(follows.Sources[0]) is not { } old ? piece : GoneAlong(was!, piece, old, now.Require(follows.Sources[0]));
        if (!hasChanged)
        {
            return ReferenceEquals(laid, piece) ? now : Put(now, piece, laid);
        }
        var design = Put(now, piece, Formed(now, laid, laid.Follows!));
        return WithWordParts(design, piece.Id);
    }

    private static bool SameNumbers(Derivation a, Derivation b) =>
        (a with { Frame = Affine.Identity, Openings = [], Fault = null }) is var x && (b with { Frame = Affine.Identity, Openings = [], Fault = null }) is var y
        && (x.Equals(y) || (x is FromCombination c && y is FromCombination d && c.How == d.How && c.Part == d.Part));

    private static bool HasChanged(Piece? was, Piece now, Derivation follows) =>
        was is null || !was.Paper.Hash.Equals(now.Paper.Hash, StringComparison.Ordinal)
        || (follows is FromCombination && !Equals(was.Place, now.Place))
        || (now.Follows is FromWords { Of: null } words && HasOtherWords(was, now, words));

    /// <summary>The words that are a piece's form, or what ties them, are others.</summary>
    private static bool HasOtherWords(Piece was, Piece now, FromWords words) =>
        was.Follows is not FromWords before || before.Text != words.Text || before.Tie != words.Tie || before.TieMm != words.TieMm
        || !ReferenceEquals(was.Worked(words.Text), now.Worked(words.Text));

    /// <summary>The piece where it lies after the one that it follows was moved, turned or sized by the edit.</summary>
    private static Piece GoneAlong(Piece was, Piece piece, Piece sourceBefore, Piece source)
    {
        if (Equals(sourceBefore.Place, source.Place)) return piece;
        var moved = sourceBefore.Place.Inverse().Then(source.Place);
        if (Equals(was.Place, piece.Place) && Equals(was.Follows!.Frame, piece.Follows!.Frame)) return piece with { Place = piece.Place.Then(moved) };
        if (!Equals(was.Outline.Path, piece.Outline.Path) || !Equals(was.Follows!.Frame, piece.Follows!.Frame))
        {
            // The edit took both: what the piece has on it lies as the edit left it, and its form follows from the other again.
            var whole = was.Follows!.Frame.Then(was.Place).Then(moved);
            return piece with { Follows = piece.Follows! with { Frame = whole.Then(piece.Place.Inverse()) } };
        }
        return piece;
    }

    /// <summary>The piece with the form that follows now, or its last one and why it keeps that.</summary>
    private static Piece Formed(Design design, Piece piece, Derivation follows)
    {
        try
        {
            var parts = PartsFor(design, piece, follows);
            var number = follows switch { FromBorder b => b.Part, FromWords w => w.Part, FromCombination c => c.Part, FromRim r => r.Part, _ => 0 };
            if (number >= parts.Length) return piece with { Follows = follows with { Fault = FollowFault.NothingLeft } };
            var map = follows.Frame;
            var part = parts[number];
            return piece.WithForm(part.Outline.Map(map), [.. part.Openings.Select(o => o.Map(map))], follows with { Fault = null }).AtHome();
        }
        catch (EditRefused)
        {
            return piece with { Follows = follows with { Fault = FollowFault.NothingLeft } };
        }
        catch (BudgetSpent)
        {
            return piece with { Follows = follows with { Fault = FollowFault.TooIntricate } };
        }
    }

    /// <summary>What follows, in the coordinates of the first source.</summary>
    private static ImmutableArray<PathArea> PartsFor(Design design, Piece piece, Derivation follows) => follows switch
    {
        FromBorder border => Borders.Offset(design.Require(border.Piece), border.Border),
        FromWords { Of: null } words => WordShapes.Parts(piece, words),
        FromWords { Of: { } of } words => design.Require(of) is { Follows: FromWords } main ? WordShapes.Parts(main, words) : [],
        FromCombination c => PathAreas.Combine(c.How, [.. c.Pieces.Select(id => PieceAreas.In(design.Require(id), design.Require(c.Pieces[0])))]),
        FromRim rim => [.. TracedPieces.Rims(rim.Rim, rim.BorderMm).Select(o => new PathArea(o, []))],
        _ => throw new ArgumentOutOfRangeException(nameof(follows)),
    };

    /// <summary>As many further pieces as words fall into parts: those that are too many go, those that lack come.</summary>
    private static Design WithWordParts(Design design, string id)
    {
        if (design.Find(id) is not { Follows: FromWords { Of: null } words } main) return design;
        var parts = WordShapes.Parts(main, words);
        var there = design.Pieces.Where(p => p.Follows is FromWords { Of: { } of } w && of == id && w.Text == words.Text).OrderBy(p => ((FromWords)p.Follows!).Part).ToList();
        var gone = there.Skip(Math.Max(0, parts.Length - 1)).ToHashSet();
        design = design with { Pieces = [.. design.Pieces.Where(p => !gone.Contains(p))] };
        for (var i = 1; i < parts.Length; i++)
        {
            var follows = words with { Of = id, Part = i, Frame = Affine.Identity, Openings = [], Fault = null };
            if (i <= there.Count)
            {
                var piece = there[i - 1];
                design = Put(design, piece, Formed(design, piece, words with { Of = id, Part = i, Frame = piece.Follows!.Frame, Openings = piece.Follows.Openings }));
                continue;
            }
            var names = design.Pieces.Select(p => p.Name).ToHashSet();
            var part = Formed(design, new Piece("", PieceNaming.Free(main.Name, names), main.Stock, main.Quantity, main.Place, new Line("l1", parts[i].Outline, Operation.Cut, Look.DrawnHere, null, null), []) { NextItem = 2, Follows = follows }, follows);
            design = design.Plus(design.Pieces.IndexOf(design.Require(id)) + i, [part]);
        }
        return design;
    }

    private static Design Put(Design design, Piece piece, Piece now) => ReferenceEquals(piece, now) ? design : design with { Pieces = design.Pieces.SetItem(IndexOf(design, piece.Id), now) };

    private static int IndexOf(Design design, string id)
    {
        for (var i = 0; i < design.Pieces.Length; i++)
        {
            if (design.Pieces[i].Id == id) return i;
        }
        throw new EditRefused(Reason.PieceGone);
    }

    /// <summary>The pieces that follow, each after those that it follows; what would follow itself is left out.</summary>
    private static List<string> InOrder(Design design)
    {
        var following = design.Pieces.Where(p => p.Follows is not null).ToDictionary(p => p.Id);
        var order = new List<string>();
        var state = new Dictionary<string, bool>();
        foreach (var id in design.Pieces.Where(p => p.Follows is not null).Select(p => p.Id)) Visit(id);
        return order;

        void Visit(string id)
        {
            if (!following.TryGetValue(id, out var piece) || !state.TryAdd(id, false)) return;
            foreach (var source in piece.Follows!.Sources) Visit(source);
            order.Add(id);
        }
    }
}
