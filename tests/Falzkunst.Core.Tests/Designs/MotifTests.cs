using CsCheck;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Designs;

public sealed class MotifTests
{
    private static Piece At(Piece piece, double x, double y, double turn = 0) => piece with { Place = Affine.Turn(turn).Then(Affine.Move(x, y)) };

    private static Line Loose(string id, Path path) => Given.Line(path, Operation.Draw) with { Id = id };

    [Fact]
    public void What_lies_on_or_touches_each_other_is_one_motif_in_reading_order()
    {
        var design = new Design(
            [
                At(Given.Piece("p1", 20, 20), 100, 2), At(Given.Piece("p2", 5, 5), 105, 8), At(Given.Piece("p3", 20, 20), 0, 0),
                At(Given.Piece("p4", 20, 20), 0, 60), At(Given.Piece("p5", 10, 10), 20.2, 65),
            ],
            [Loose("x1", Given.Straight(110, 22.1, 110, 30)), Loose("x2", Given.Straight(60, 60, 70, 70))], [], 6);
        var motifs = Motifs.Find(design);
        Assert.Equal(["p3", "p1p2", "p4p5", ""], motifs.Select(m => string.Concat(m.Pieces.Select(p => p.Id))));
        Assert.Equal([0, 1, 0, 1], motifs.Select(m => m.Loose.Length));
        Assert.Equal([1, 2, 3, 4], motifs.Select(m => m.Number));
    }

    [Theory]
    [InlineData(0.4, 1)]
    [InlineData(0.6, 2)]
    [InlineData(3, 2)]
    public void What_lies_within_half_a_millimetre_hangs_together(double gap, int motifs) =>
        Assert.Equal(motifs, Motifs.Find(new Design([At(Given.Piece("p1", 20, 20), 0, 0), At(Given.Piece("p2", 20, 20), 20 + gap, 7)], [], [], 3)).Length);

    private static readonly Gen<(double X, double Y, double Degrees)[]> Places = Gen.Select(Gen.Double[0, 200], Gen.Double[0, 200], Gen.Double[0, 360]).Array[1, 14];

    [Fact]
    public void Motifs_part_everything_and_what_is_taken_keeps_its_form_side_by_side() => Places.ForAll(PartedAndTaken);

    /// <summary>Two pieces lay half a millimetre apart but for a few micrometres, and were near only where samples happened to fall.</summary>
    [Fact]
    public void What_hangs_together_does_so_wherever_it_is_moved() => PartedAndTaken(Places.Generate(PCG.Parse("eQOxda4sKgN4"), null!, out _));

    private static void PartedAndTaken((double X, double Y, double Degrees)[] places)
    {
        var design = new Design([.. places.Select((p, i) => At(Given.Piece($"p{i}", 20, 10), p.X, p.Y, p.Degrees))], [], [], places.Length + 1);
        var motifs = Motifs.Find(design);
        Assert.Equal(design.Pieces.Length, motifs.Sum(m => m.Pieces.Length));
        var taken = Motifs.Take(motifs, [.. motifs.Select(m => m.Number)], 150, 40);
        Assert.Equal(Enumerable.Range(40, design.Pieces.Length).Select(i => $"p{i}"), taken.Pieces.Select(p => p.Id));
        Assert.Equal(40 + design.Pieces.Length, taken.NextPiece);
        // Taken side by side, what was apart stays apart and what hung together hangs together.
        Assert.Equal(motifs.Select(m => m.Pieces.Length).Order(), Motifs.Find(taken).Select(m => m.Pieces.Length).Order());
        Assert.True(taken.Pieces.All(p => p.Outline.Path.BoundsUnder(p.Place).Min is { X: > -1e-6, Y: > -1e-6 }));
    }

    [Theory]
    [InlineData(1, 1, true)]
    [InlineData(-1, 1, true)]
    [InlineData(1, -1, true)]
    [InlineData(1, 1.3, false)]
    public void A_hook_without_symmetry_is_known_again_on_its_face_and_on_its_back(double x, double y, bool isSame)
    {
        var hook = Path.Polyline([new(0, 0), new(40, 0), new(40, 8), new(10, 8), new(10, 30), new(0, 22)], closed: true);
        Piece Cut(Path outline) => Piece.FromLines("p1", "Piece p1", "chalk-200", Affine.Identity, [Given.Line(outline, Operation.Cut)]);
        var other = hook.Map(Affine.Scale(x, y).Then(Affine.Turn(33)));
        Assert.Equal(isSame, SameShape.Are(Cut(hook), Cut(other)));
        // Drawn the other way round it is the same cut.
        Assert.Equal(isSame, SameShape.Are(Cut(hook), Cut(other.Reversed())));
    }

    [Fact]
    public void The_same_outline_is_known_again_turned_mirrored_and_drawn_from_another_start() => Gen.Select(Gen.Double[0, 360], Gen.Bool, Gen.Int[0, 9]).ForAll((turn, mirrored, start) =>
    {
        var star = PathNodes.WrittenOut(new StarShape(0, 0, 30, 40, 5).ToPath());
        Piece Cut(Path outline) => Piece.FromLines("p1", "Piece p1", "chalk-200", Affine.Identity, [Given.Line(outline, Operation.Cut)]);
        var other = star.StartingAt(start).Map(Affine.Scale(mirrored ? -1 : 1, 1).Then(Affine.Turn(turn)).Then(Affine.Move(7, -3)));
        Assert.True(SameShape.Are(Cut(star), Cut(mirrored ? other.Reversed() : other)));
        Assert.False(SameShape.Are(Cut(star), Cut(other.Map(Affine.Scale(1.05, 1.05)))));
        Assert.False(SameShape.Are(Cut(star), Cut(new StarShape(0, 0, 30, 40, 6).ToPath())));
    });

    [Theory]
    [InlineData(20, 2)]
    [InlineData(6000, 1)]
    public void Bundles_of_more_edges_than_are_measured_hang_together_by_their_boxes(int edges, int motifs)
    {
        // Long slanting strokes to and fro: every box of one bundle meets every box of the other, and no stroke comes near.
        var strokes = Enumerable.Range(0, edges + 1).Select(i => i % 2 == 0 ? new Point(0, 2.0 * i / edges) : new Point(200, 200 + 2.0 * i / edges));
        var bundle = Path.Polyline([.. strokes], closed: true);
        Piece Cut(Path outline, string id) => Piece.FromLines(id, id, "chalk-200", Affine.Identity, [Given.Line(outline, Operation.Cut)]);
        var design = new Design([Cut(bundle, "p1"), Cut(bundle.Map(Affine.Move(0, 20)), "p2")], [], [], 3);
        Assert.Equal(motifs, Motifs.Find(design).Length);
    }

    [Fact]
    public void A_box_under_a_map_is_the_box_of_the_mapped_line() => Gen.Select(Given.Paths, Given.Maps, Gen.Int[-4, 4], Gen.Bool).ForAll((path, map, quarters, upright) =>
    {
        var by = upright ? Affine.Scale(2, -0.5).Then(Affine.Turn(90 * quarters)).Then(Affine.Move(3, 4)) : map;
        var (a, b) = (path.BoundsUnder(by), path.Map(by).Bounds);
        Assert.True(a.Contains(b, 1e-6) && b.Contains(a, 1e-6));
    });
}
