using System.Collections.Immutable;
using Falzkunst.Core.Building;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Geometry.Overlay;
using Falzkunst.Core.Texts;
using Falzkunst.Formats.Fonts;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Formats.Tests.Fonts;

/// <summary>Words cut as a piece in every face that ships, against a count and areas made another way.</summary>
public sealed class WordShapeTests
{
    private const string Words = "Fünf Glühwürmchen";
    private static readonly FaceShelf Shelf = new();

    public static TheoryData<string> Outlines() => [.. FaceShelf.Shipped.Where(f => f.Kind != FaceKind.SingleLine).Select(f => f.Key)];

    private static (Piece Piece, TextItem Text) Written(string face, string words = Words)
    {
        var text = new TextItem("l2", words, face, 12, Operation.Cut, null, Affine.Identity) { Shaped = Shelf.Shape(face, words), IsShape = true };
        var plate = new Piece("p1", "Plate", "chalk-200", 1, Affine.Identity, new Line("l1", Path.Rectangle(0, 0, 200, 40), Operation.Cut, Look.DrawnHere, null, null), [text]) { NextItem = 3 };
        return (plate, text);
    }

    /// <summary>The letters as one area by corners, which no code of the shapes has a part in.</summary>
    private static Region Ink(Piece piece, TextItem text)
    {
        var areas = new List<Region>();
        foreach (var letter in Letters.Placed(text.Shaped!, text.SetOn(piece)))
        {
            var index = new RegionIndex([.. letter.Select(p => Flattening.Flatten(p, 0.005))]);
            // By winding, each ring by itself: what lies in as many rings one way as the other is air.
            var rings = letter.Select(p => Region.FromRings(Flattening.Flatten(p, 0.005), [])).ToList();
            var winds = Math.Sign(letter.MaxBy(p => Math.Abs(p.SignedArea))!.SignedArea);
            var paper = Region.UnionOf(rings.Where((_, i) => Math.Sign(letter[i].SignedArea) == winds));
            areas.Add(paper.Minus(Region.UnionOf(rings.Where((_, i) => Math.Sign(letter[i].SignedArea) != winds))));
        }
        return Region.UnionOf(areas).Where(p => p.Area > 0.002, _ => true);
    }

    [Theory]
    [MemberData(nameof(Outlines))]
    public void Parts_are_as_many_as_another_count_has_and_tied_they_are_one_that_holds_all_letters(string face)
    {
        var (piece, text) = Written(face);
        var ink = Ink(piece, text);
        var loose = WordShapes.Parts(piece, new FromWords(null, "l2", 0, WordTie.Loose, 0));
        Assert.Equal(ink.PartCount, loose.Length);
        Assert.Equal(ink.Area, loose.Sum(p => p.Area), ink.Area * 0.003);
        foreach (var (tie, size) in new[] { (WordTie.Bar, 2.0), (WordTie.Bridges, 1.0) })
        {
            var tied = Assert.Single(WordShapes.Parts(piece, new FromWords(null, "l2", 0, tie, size)));
            var paper = Region.FromRings(Flattening.Flatten(tied.Outline, 0.005), [.. tied.Openings.Select(o => Flattening.Flatten(o, 0.005))]);
            // No letter loses paper, and the tie does not fill the word.
            Assert.True(ink.Minus(paper).Area < 0.003 * ink.Area, $"{face}, {tie}: {ink.Minus(paper).Area} mm² of the letters are gone");
            Assert.True(paper.Area < ink.Area * 2);
        }
        var growth = WordShapes.GrowthToOne(loose);
        Assert.InRange(growth!.Value, 2, 12);
        if (loose.Length > 1) Assert.NotEmpty(WordShapes.Loose(piece with { Follows = new FromWords(null, "l2", 0, WordTie.Loose, 0) }, new FromWords(null, "l2", 0, WordTie.Loose, 0)));
    }

    [Fact]
    public void A_letter_within_a_ring_is_tied_to_it_and_not_lost_in_its_opening()
    {
        var tried = 0;
        foreach (var face in Outlines().Select(row => row.Data))
        {
            var (piece, text) = Written(face, "©");
            var loose = WordShapes.Parts(piece, new FromWords(null, "l2", 0, WordTie.Loose, 0));
            if (text.Shaped!.Missing.Length > 0 || loose.Length < 2) continue;
            tried++;
            foreach (var tie in new[] { WordTie.Bar, WordTie.Bridges })
            {
                var tied = Assert.Single(WordShapes.Parts(piece, new FromWords(null, "l2", 0, tie, 1)));
                Assert.All(loose, part => Assert.True(PathAreas.Combine(Combination.Subtract, AreaRings.Of(part), AreaRings.Of(tied)).Sum(p => p.Area) < 1e-3, $"{face}, {tie}"));
            }
        }
        Assert.True(tried >= 3, $"{tried} faces have it in parts");
    }

    [Fact]
    public void Scripts_offer_other_forms_of_letters_and_these_are_others()
    {
        var forms = FaceShelf.Shipped.ToDictionary(f => f.Key, f => Shelf.FormsOf(f.Key));
        Assert.Contains(forms, f => f.Value.Length > 0);
        Assert.Empty(forms["line-plain"]);
        var different = forms.Where(f => f.Value.Length > 0).Count(f => f.Value.Any(form =>
            !Shelf.Shape(f.Key, "Quick Wagon 1234 ff", form)!.Glyphs.SelectMany(g => g.Paths).SequenceEqual(Shelf.Shape(f.Key, "Quick Wagon 1234 ff")!.Glyphs.SelectMany(g => g.Paths))));
        Assert.True(different >= 3, $"{different} faces have forms that change anything");
        // A form that a face lacks changes nothing.
        Assert.Equal(Shelf.Shape("plain", "Depot")!.Paragraphs[0].Glyphs.AsEnumerable(), Shelf.Shape("plain", "Depot", "zzzz")!.Paragraphs[0].Glyphs.AsEnumerable());
    }
}
