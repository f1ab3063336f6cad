using Falzkunst.Core.Geometry;
using Falzkunst.Core.Texts;

namespace Falzkunst.Core.Tests.Texts;

/// <summary>Where a caret stands among letters.</summary>
public sealed class TextCaretTests
{
    private static (Point Top, Point Foot)[] Places(string words, TextStyle style) =>
        BoxFaces.Instance.Shape("marker", words) is { } shaped ? TextCarets.Places(TextSetting.InBox(shaped, words, style), shaped, words, style.CapitalMm) : [];

    [Fact]
    public void A_caret_stands_before_each_letter_and_after_the_last()
    {
        var places = Places("abc", new TextStyle(10));
        Assert.Equal([0, 7, 14, 21], places.Select(p => Math.Round(p.Foot.X, 6)));
        Assert.All(places, p => Assert.Equal(14, p.Foot.Y - p.Top.Y, 6));
    }

    [Fact]
    public void Lines_have_their_own_carets_empty_ones_too()
    {
        var places = Places("ab\n\nc", new TextStyle(10, TextAlign.Right));
        // Behind "ab", in the empty line, before and behind "c".
        Assert.Equal(14, places[2].Foot.X, 6);
        Assert.Equal(places[0].Foot.Y + 16, places[3].Foot.Y, 6);
        Assert.Equal(places[0].Foot.Y + 32, places[4].Foot.Y, 6);
        Assert.Equal([7, 14], places[4..].Select(p => Math.Round(p.Foot.X, 6)));
    }

    [Fact]
    public void Where_a_line_is_broken_the_caret_goes_to_the_next()
    {
        var places = Places("ab cd", new TextStyle(10, BoxWidthMm: 16));
        Assert.Equal(places[0].Foot.Y + 16, places[3].Foot.Y, 6);
        Assert.Equal(0, places[3].Foot.X, 6);
    }
}
