using System.Collections.Immutable;
using CsCheck;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Texts;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Texts;

/// <summary>Breaking lines, aligning them, and standing along lines, in a face whose letters are 0.7 capitals wide.</summary>
public sealed class TextSettingTests
{
    private static ShapedText Shape(string words, string face = "marker") => BoxFaces.Instance.Shape(face, words)!;

    private static SetText InBox(string words, TextStyle style) => TextSetting.InBox(Shape(words), words, style);

    [Fact]
    public void The_first_baseline_stands_a_capital_below_the_upper_edge_and_lines_follow_by_their_distance()
    {
        var set = InBox("ab\ncd\n\ne", new TextStyle(10, LineSpacing: 1.5));
        Assert.Equal([10, 25, 40, 55], set.Lines.Select(l => l.Baseline));
        Assert.Equal([14, 14, 0, 7], set.Lines.Select(l => Math.Round(l.Width, 9)));
        Assert.Equal((14, 55), (Math.Round(set.Width, 9), set.Height));
        var first = set.Glyphs[0].Place;
        Assert.Equal(new Point(0, 0), first.Apply(new Point(0, -1)));
        Assert.Equal(new Point(10, 10), first.Apply(new Point(1, 0)));
    }

    [Theory]
    [InlineData(TextAlign.Left, 0)]
    [InlineData(TextAlign.Centre, 3.5)]
    [InlineData(TextAlign.Right, 7)]
    public void Shorter_lines_stand_as_they_are_aligned(TextAlign align, double left) =>
        Assert.Equal(left, InBox("ab\nc", new TextStyle(10, align)).Lines[1].Left, 9);

    [Fact]
    public void Distance_between_letters_is_added_between_them_and_not_after_the_last() =>
        Assert.Equal(3 * 7 + 2 * 2, InBox("abc", new TextStyle(10, LetterSpacing: 200)).Width, 9);

    [Fact]
    public void Lines_are_broken_at_blanks_and_no_line_is_wider_than_the_box_but_for_a_word_that_is() => Gen.Select(
        Gen.String[Gen.Char["abc  "], 0, 40], Gen.Double[5, 60], Gen.Enum<TextAlign>()).ForAll((words, width, align) =>
    {
        var set = InBox(words, new TextStyle(2, align, BoxWidthMm: width));
        var longest = words.Split(' ').Max(w => w.Length) * 1.4;
        Assert.All(set.Lines, l => Assert.True(l.Width <= Math.Max(width, longest) + 1e-6));
        Assert.Equal(longest > width + 1e-6, set.IsTooWide);
        // Nothing is lost or said twice, and lines follow on each other.
        Assert.Equal(words.Count(c => c != ' '), set.Glyphs.Count(g => g.Index == 0));
        Assert.Equal(0, set.Lines[0].From);
        Assert.All(set.Lines.Zip(set.Lines.Skip(1)), p => Assert.Equal(p.First.To, p.Second.From));
        Assert.Equal(words.Length, set.Lines[^1].To);
        // Greedy: the first word of a line would not have fitted on the one before.
        foreach (var (line, next) in set.Lines.Zip(set.Lines.Skip(1)))
        {
            var word = words[next.From..].TrimStart().Split(' ')[0].Length * 1.4;
            var said = words[line.From..next.From].Length * 1.4;
            Assert.True(word == 0 || said + word > width + 1e-6);
        }
    });

    [Fact]
    public void Along_a_circle_every_letter_stands_upright_on_it_at_its_place_by_length()
    {
        var circle = EllipticArc.Ellipse(new Point(0, 0), 50, 50);
        var set = TextSetting.Along(Shape("abcdef"), "abcdef", new TextStyle(5), circle, 2);
        Assert.Equal(2 * Math.PI * 50, set.Width, 0.01);
        for (var i = 0; i < 6; i++)
        {
            // The middle of its advance, on the baseline: 2 mm outside or inside the circle, which runs one way round.
            var middle = set.Glyphs[i].Place.Apply(new Point(0.35, 0));
            Assert.InRange(Math.Abs(Math.Sqrt(middle.X * middle.X + middle.Y * middle.Y) - 50), 1.99, 2.01);
            var up = set.Glyphs[i].Place.Apply(new Point(0.35, -1)) - middle;
            Assert.Equal(5, up.Length, 6);
            Assert.True(Math.Abs(up.Cross(middle)) < 0.05 * up.Length * middle.Length);
        }
        var (a, b) = (set.Glyphs[0].Place.Apply(new Point(0.35, 0)), set.Glyphs[1].Place.Apply(new Point(0.35, 0)));
        Assert.Equal(3.5, 50 * Math.Acos(Math.Clamp((a.X * b.X + a.Y * b.Y) / (a.Length * b.Length), -1, 1)), 0.01);
    }

    [Fact]
    public void What_is_longer_than_its_line_goes_on_straight_and_says_so()
    {
        var set = TextSetting.Along(Shape("abcd"), "abcd", new TextStyle(10), Path.Polyline([new(0, 0), new(10, 0)], false), 0);
        Assert.True(set.IsTooWide);
        Assert.Equal(new Point(21, 0), set.Glyphs[3].Place.Apply(new Point(0, 0)));
    }

    [Fact]
    public void Letters_that_overlap_are_one_outline_and_the_others_stay_to_the_last_bit()
    {
        var shaped = Shape("/ab");
        var set = TextSetting.InBox(shaped, "/ab", new TextStyle(10));
        var letters = Letters.Placed(shaped, set).ToList();
        var one = Letters.AsOne(letters);
        Assert.Equal(2, one.Length);
        Assert.Contains(letters[2][0], one);
        // "/" is 6 wide and "a" begins after 3: together 9.
        Assert.Equal(9 * 10 + 6 * 10, one.Sum(p => Math.Abs(p.SignedArea)), 6);
    }

    /// <summary>A ring overlapped by a bar: by winding the counter is filled where the bar lies, by even and odd the bar would have a hole.</summary>
    [Fact]
    public void Overlaps_are_filled_by_winding()
    {
        var ring = ImmutableArray.Create(Path.Rectangle(0, 0, 30, 30), Path.Rectangle(10, 10, 10, 10).Reversed());
        var bar = ImmutableArray.Create(Path.Rectangle(-5, 14, 40, 2));
        var one = Letters.AsOne([ring, bar]);
        Assert.Equal(3, one.Length);
        Assert.Equal(900 - 100 + 10 * 2 + 5 * 2 * 2, Region.EvenOdd(one).Area, 6);
        // One glyph whose own parts overlap is the same.
        Assert.Equal(900 - 100 + 10 * 2 + 5 * 2 * 2, Region.EvenOdd(Letters.AsOne([[.. ring, .. bar]])).Area, 6);
    }
}
