using System.Collections.Immutable;
using CsCheck;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.ArtSheets;
using Falzkunst.Core.Designs.Assembling;
using Falzkunst.Core.Geometry;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Designs;

public sealed class ArtSheetTests
{
    private static readonly Appearance Pen = new() { Stroke = "#000000" };

    private static DrawnShape Stroke(Path path, params int[] within) => new([path], Pen, null, [], null, "") { Within = [.. within] };

    private static Drawing Sheet(IEnumerable<DrawnShape> shapes) => new(300, 300, [.. shapes], 0, []);

    /// <summary>A face of single lines: a head, two eyes of a dot each, a mouth, and a stem that does not touch it.</summary>
    private static IEnumerable<DrawnShape> Face(double x, double y, double size, params int[] within)
    {
        var map = Affine.Scale(size, size).Then(Affine.Move(x, y));
        Path[] lines =
        [
            EllipticArc.Ellipse(new(0.5, 0.4), 0.4, 0.4), EllipticArc.Ellipse(new(0.35, 0.3), 0.03, 0.03), EllipticArc.Ellipse(new(0.65, 0.3), 0.03, 0.03),
            Path.Polyline([new(0.3, 0.55), new(0.5, 0.65), new(0.7, 0.55)], closed: false), Given.Straight(0.5, 0.84, 0.5, 1),
        ];
        return lines.Select(l => Stroke(l.Map(map), within));
    }

    /// <summary>A letter i with its dot, and a bowl beside its stem.</summary>
    private static IEnumerable<DrawnShape> Letters(double x, double y, double size)
    {
        var map = Affine.Scale(size, size).Then(Affine.Move(x, y));
        Path[] lines = [Given.Straight(0.1, 0.3, 0.1, 1), EllipticArc.Ellipse(new(0.1, 0.15), 0.03, 0.03), Given.Straight(0.25, 0, 0.25, 1), Path.Polyline([new(0.28, 0.5), new(0.5, 0.75), new(0.28, 1)], closed: false)];
        return lines.Select(l => Stroke(l.Map(map)));
    }

    [Fact]
    public void A_sheet_of_24_single_line_motifs_is_24_motifs()
    {
        var shapes = Enumerable.Range(0, 24).SelectMany(i => i % 2 == 0 ? Face(i % 6 * 45, i / 6 * 60, 25) : Letters(i % 6 * 45, i / 6 * 60, 28));
        var motifs = ArtMotifs.Find(new Linkage(Sheet(shapes)), MotifCut.Usual);
        Assert.Equal(24, motifs.Length);
        Assert.Equal(Enumerable.Range(0, 24).Select(i => i % 2 == 0 ? 5 : 4), motifs.Select(m => m.Paths.Length));
    }

    [Fact]
    public void Motifs_part_every_line_and_keep_each_in_its_form() =>
        Gen.Select(Gen.Int[1, 5], Gen.Int[1, 5], Gen.Double[5, 40], Gen.Int[-4, 4]).ForAll((rows, columns, gap, level) =>
        {
            var shapes = (from r in Enumerable.Range(0, rows) from c in Enumerable.Range(0, columns) from s in Face(c * (20 + gap), r * (20 + gap), 20) select s).ToList();
            var drawing = Sheet(shapes);
            var links = new Linkage(drawing);
            var motifs = ArtMotifs.Find(links, MotifCut.At(level));
            Assert.Equal(drawing.LineCount, motifs.Sum(m => m.Paths.Length));
            Assert.Equal(drawing.LineCount, motifs.SelectMany(m => m.Paths).Distinct().Count());
            var forms = motifs.SelectMany(m => m.In(drawing).Shapes).SelectMany(s => s.Paths).ToHashSet(ReferenceEqualityComparer.Instance);
            Assert.All(shapes, s => Assert.Contains(s.Paths[0], forms));
            // Farther never tells more apart than closer.
            Assert.True(ArtMotifs.Find(links, MotifCut.At(level + 1)).Length <= motifs.Length);
            if (rows * columns > 1 && level == 0) Assert.Equal(rows * columns, motifs.Length);
        });

    [Fact]
    public void The_files_own_groups_say_it_where_they_lie_beside_each_other()
    {
        // So close that nearness would make them one.
        var shapes = Enumerable.Range(0, 4).SelectMany(i => Face(i * 20.4, 0, 20, 1, 10 + i));
        var links = new Linkage(Sheet(shapes));
        Assert.True(links.HasGroups);
        Assert.Equal([5, 5, 5, 5], ArtMotifs.Find(links, MotifCut.Usual).Select(m => m.Paths.Length));
        // Groups over each other are layers of one thing.
        Assert.False(new Linkage(Sheet([.. Face(0, 0, 20, 1), .. Face(2, 2, 18, 2)])).HasGroups);
    }

    [Fact]
    public void Hands_join_and_part_and_what_a_form_says_is_read_back()
    {
        var links = new Linkage(Sheet(Enumerable.Range(0, 3).SelectMany(i => Face(i * 60, 0, 25))));
        var joined = MotifCut.Usual.With(isJoin: true, [1, 2]);
        Assert.Equal([10, 5], ArtMotifs.Find(links, joined).Select(m => m.Paths.Length));
        var parted = joined.With(isJoin: false, [1]);
        Assert.Equal(3, ArtMotifs.Find(links, parted).Length);
        Assert.Equal("0|j1,2|p1", parted.Write());
        Assert.Equal(parted.Write(), MotifCut.Read(parted.Write()).Write());
        Assert.Equal("4", MotifCut.Read("99|x|j|p-3").Write().Split('|')[0]);
        // A motif of one line has no parts.
        var one = new Linkage(Sheet([Stroke(Given.Straight(0, 0, 9, 9))]));
        Assert.Single(ArtMotifs.Find(one, MotifCut.Usual.With(isJoin: false, [1])));
        Assert.Empty(ArtMotifs.Find(new Linkage(Sheet([])), MotifCut.Usual));
    }

    [Fact]
    public void Motifs_laid_on_a_piece_are_drawn_in_its_middle_in_their_form()
    {
        var drawing = Sheet([.. Face(0, 0, 25), .. Letters(80, 0, 28)]);
        var found = ArtMotifs.Find(new Linkage(drawing), MotifCut.Usual);
        ImmutableArray<Motif> motifs = [.. found.Select(m => Assembler.Assemble(m.In(drawing), [], _ => "chalk-200") is var d ? new Motif(m.Number, d.Pieces, d.Loose, m.Box) : null!)];
        var piece = Given.Piece("p1", 120, 80) with { Place = Affine.Move(30, 40) };
        var lines = MotifsOnPiece.Lines(piece, motifs, null);
        Assert.Equal(drawing.LineCount, lines.Length);
        Assert.All(lines.Where(l => !l.Path.IsClosed), l => Assert.Equal(Operation.Draw, l.Operation));
        Assert.Equal(drawing.Shapes.Sum(s => s.Paths[0].Length), lines.Sum(l => l.Path.Length), 1e-6);
        Assert.True(piece.Outline.Path.BoundsUnder(piece.Place).Contains(lines.Aggregate(Box.Empty, (all, l) => all.Include(l.Path.Bounds))));
        Assert.All(MotifsOnPiece.Lines(piece, motifs, Operation.Foil), l => Assert.Equal(Operation.Foil, l.Operation));
    }

    [Theory]
    [InlineData(612, 792, 72)]
    [InlineData(816, 1056, 96)]
    [InlineData(595.276, 841.89, 72)]
    [InlineData(793.7, 1122.52, 96)]
    [InlineData(1080, 1080, 90)]
    [InlineData(400, 300, 96)]
    [InlineData(254, 177.8, 25.4)]
    public void A_page_without_a_size_is_guessed_by_the_sheets_there_are(double width, double height, double units)
    {
        var drawing = new Drawing(width * 25.4 / 96, height * 25.4 / 96, [.. Enumerable.Range(1, 20).Select(i => Stroke(Path.Rectangle(0, 0, 7 * i * 25.4 / 96, 11 * i * 25.4 / 96)))], 0, []) { UnitsToInch = 96 };
        var first = SizeGuess.Candidates(drawing, (254, 177.8), (127, 177.8))[0];
        Assert.Equal(units, first.UnitsToInch);
        Assert.Equal(width * 25.4 / units, first.Width, 1e-6);
        Assert.Empty(SizeGuess.Candidates(drawing with { UnitsToInch = null }, (210, 148)));
    }
}
