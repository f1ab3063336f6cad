using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry.Overlay;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Building;

/// <summary>Mat layers, insets and rings of a piece, which follow it.</summary>
public static class Mats
{
    /// <summary>At most so many are made at once.</summary>
    public const int MostAtOnce = 6;

    /// <summary>Borders of a piece as new pieces: grown ones right under it, shrunk ones right above, each on its stock.</summary>
    /// <exception cref="EditRefused">A number is out of reach, nothing would be left, or no such stock is there.</exception>
    public static Design Make(Design design, string piece, ImmutableArray<Border> borders, Drawer drawer)
    {
        if (borders.Length is < 1 or > MostAtOnce) throw EditRefused.Range(Measure.Borders, 1, MostAtOnce, "by");
        var of = design.Require(piece);
        var names = design.Pieces.Select(p => p.Name).ToHashSet();
        var made = new Dictionary<Border, int>();
        // Outward the smallest first, each further one under those that are there; inward the largest first, each smaller one on top.
        foreach (var border in borders.OrderBy(b => Math.Abs(b.ByMm)))
        {
            drawer.Stock(border.Stock);
            var parts = Borders.Offset(of, border);
            var below = borders.Count(b => b.ByMm >= 0 && b.ByMm < border.ByMm);
            var above = borders.Where(b => b.ByMm < 0 && b.ByMm > border.ByMm).Sum(b => made.GetValueOrDefault(b));
            for (var part = 0; part < parts.Length; part++)
            {
                var at = design.Pieces.IndexOf(design.Require(piece));
                var mat = PieceFor(PieceNaming.Wished(NameFor(of, border), names), border.Stock, of, parts[part], new FromBorder(piece, border, part));
                design = design.Plus(border.ByMm < 0 ? at + 1 + above : Math.Max(0, at - below), [mat]);
                made[border] = made.GetValueOrDefault(border) + 1;
            }
        }
        return design;
    }

    /// <summary>A new piece of a form in the coordinates of another, where that lies.</summary>
    internal static Piece PieceFor(string name, string stock, Piece at, PathArea form, Derivation? follows)
    {
        var outline = new Line("l1", form.Outline, Operation.Cut, Look.DrawnHere, null, null);
        var bare = new Piece("", name, stock, at.Quantity, at.Place, outline, []) { NextItem = 2 };
        if (follows is not null) return bare.WithForm(form.Outline, form.Openings, follows).AtHome();
        return bare.Plus(form.Openings.Select(o => outline with { Path = o })).AtHome();
    }

    private static string NameFor(Piece of, Border border) => border.RingMm is not null ? $"Ring round {of.Name}"
        : border.ByMm < 0 ? string.Create(CultureInfo.InvariantCulture, $"{of.Name}, {-border.ByMm:0.##} mm inside")
        : string.Create(CultureInfo.InvariantCulture, $"{of.Name}, {border.ByMm:0.##} mm around");

    /// <summary>Other numbers for a border that follows its piece.</summary>
    /// <exception cref="EditRefused">The piece is no border, or nothing would be left of it.</exception>
    public static Design Change(Design design, string piece, Border border)
    {
        if (border.Refusal is { } refusal) throw refusal;
        if (design.Require(piece).Follows is not FromBorder follows) throw new EditRefused(Reason.FollowsNothing);
        if (design.Find(follows.Piece) is { } of) Borders.Offset(of, border);
        return design.With(piece, p => Unlocked(p) with { Stock = border.Stock, Follows = follows with { Border = border } });
    }

    /// <summary>Pieces that follow something stand for themselves from now on.</summary>
    /// <exception cref="EditRefused">None of them follows anything.</exception>
    public static Design MakePlain(Design design, ImmutableArray<string> pieces)
    {
        if (!pieces.Any(id => design.Require(id).Follows is not null)) throw new EditRefused(Reason.FollowsNothing);
        // Parts of words belong together: with the first of them all are plain.
        var all = pieces.Concat(pieces.SelectMany(id => design.Pieces.Where(p => p.Follows is FromWords { Of: { } of } && of == id).Select(p => p.Id))).Distinct();
        return all.Aggregate(design, (d, id) => d.With(id, p => p.Follows is null ? p : Following.Plain(p)));
    }

    internal static Piece Unlocked(Piece piece) => piece.Locked ? throw new EditRefused(Reason.Locked, piece.Name) : piece;
}
