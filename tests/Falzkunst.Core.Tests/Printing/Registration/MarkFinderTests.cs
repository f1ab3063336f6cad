using System.Globalization;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Printing.Registration;

namespace Falzkunst.Core.Tests.Printing.Registration;

/// <summary>Marks found on made scans and photos whose true maps are known.</summary>
public sealed class MarkFinderTests
{
    private static readonly bool All = Environment.GetEnvironmentVariable("FALZKUNST_MARKS") == "all";

    /// <summary>A tenth of five hundred, from where the seed says; all of them where FALZKUNST_MARKS is "all".</summary>
    private static IEnumerable<int> Numbers()
    {
        var seed = int.TryParse(Environment.GetEnvironmentVariable("FALZKUNST_SEED"), NumberStyles.None, CultureInfo.InvariantCulture, out var given) ? given : 14;
        var step = All ? 1 : 9;
        return Enumerable.Range(0, 500).Where(n => (n + seed) % step == 0);
    }

    [Fact]
    public void Scans_of_every_fault_are_read_to_a_twentieth_of_a_millimetre()
    {
        List<double> errors = [];
        var held = 0;
        foreach (var number in Numbers())
        {
            var (page, faults, dots) = MadePages.Scan(number);
            var reading = MarkFinder.Find(PageScan.Take(page, [], faults), page, dots);
            Assert.True(reading.Page is not null, $"{number}: {reading.Refused}");
            Assert.Equal(page.Marks.Length, reading.Found.Length);
            var error = MadePages.Error(reading.Page.Map.Apply, page, faults);
            Assert.True(error < 0.05, $"{number}: {error:0.000} mm");
            // Thin lines look wider for their blur; others tell how far the ink has spread.
            if (page.Marks[0].LineMm * dots > 5.5) Assert.Equal(faults.SpreadMm, reading.Page.SpreadMm, 0.03);
            if (error <= reading.Page.UncertainMm) held++;
            errors.Add(error);
        }
        Assert.True(errors.Order().ElementAt(errors.Count / 2) < 0.01);
        Assert.True(held >= errors.Count * 0.95);
    }

    [Theory]
    [InlineData("missing", MarkTrouble.Missing)]
    [InlineData("covered", MarkTrouble.Covered, MarkTrouble.Missing)]
    [InlineData("mirrored", MarkTrouble.Mirrored)]
    [InlineData("decoy", MarkTrouble.Decoy)]
    [InlineData("shorter", MarkTrouble.Covered)]
    [InlineData("moved", MarkTrouble.OtherLayout, MarkTrouble.Covered, MarkTrouble.Uneven)]
    [InlineData("other layout", MarkTrouble.OtherLayout, MarkTrouble.Covered, MarkTrouble.Missing)]
    [InlineData("fourth", MarkTrouble.OtherLayout)]
    public void A_page_with_a_wrong_mark_is_refused_and_the_mark_named(string what, params MarkTrouble[] why)
    {
        for (var number = 0; number < (All ? 12 : 3); number++)
        {
            var (page, faults, dots) = MadePages.Scan(1000 + number, dotsPerInch: 200 + number % 2 * 100);
            page = page with { Marks = [.. page.Marks.Take(3)] };
            var random = new Random(number);
            var wrong = page.Marks[number % 3];
            var (arm, out1) = (wrong.ArmMm, new Point(wrong.Right, wrong.Down));
            LayoutMark Instead(LayoutMark mark) => mark == wrong ? what switch
            {
                "mirrored" => mark with { Outer = mark.Outer + new Point(mark.Right * arm, 0), Corner = Mirrored(mark.Corner) },
                "shorter" => mark with { ArmMm = arm - 1.2 },
                "moved" => mark with { Outer = mark.Outer - new Point(0, wrong.Down * (1.5 + random.NextDouble() * 2)) },
                _ => mark,
            } : mark;
            var printed = what switch
            {
                "missing" => page with { Marks = page.Marks.Remove(wrong) },
                "decoy" => page with { Marks = page.Marks.Add(wrong with { Outer = wrong.Outer - out1 * (2 + random.NextDouble() * 3) }) },
                "fourth" => page with { Marks = page.Marks.Add(wrong with { Corner = MarkCorner.BottomRight, Outer = new Point(page.Marks[1].Outer.X, page.Marks[2].Outer.Y) }) },
                "other layout" => page with { Marks = [.. page.Marks.Select(m => m with { Outer = m.Outer + new Point(m.Right, m.Down) * (1 + random.Next(3)) })] },
                _ => page with { Marks = [.. page.Marks.Select(Instead)] },
            };
            if (what == "covered") faults = faults with { Smudges = [new Smudge(wrong.Outer + out1 * (arm * 0.1 * random.Next(3)), arm * (0.25 + random.NextDouble() * 0.3), number % 2 == 0 ? 1 : -1, true)] };
            var reading = MarkFinder.Find(PageScan.Take(printed, [], faults), page, dots);
            Assert.True(reading.Page is null, $"{number} was taken");
            Assert.True(why.Contains(reading.Refused!.Why), $"{number}: {reading.Refused}");
            if (why.Length == 1 && what != "fourth") Assert.Equal(wrong.Corner, reading.Refused.Mark);
        }
    }

    [Theory]
    [InlineData(0, false, 0.15)]
    [InlineData(0, true, 0.03)]
    [InlineData(0.02, false, 0.3)]
    [InlineData(0.02, true, 0.03)]
    public void Photos_are_read_and_the_uncertainty_that_is_stated_holds(double bend, bool hasFourth, double most)
    {
        for (var number = 0; number < (All ? 20 : 4); number++)
        {
            var (page, faults) = MadePages.Photo(number, bend, hasFourth);
            var reading = MarkFinder.Find(PageScan.Take(page, [], faults), page, number % 2 == 0 ? null : 72 / 25.4);
            Assert.True(reading.Page is { IsPhoto: true }, $"{number}: {reading.Refused}");
            var error = MadePages.Error(reading.Page.Map.Apply, page, faults);
            Assert.True(error < most && error <= reading.Page.UncertainMm, $"{number}: {error:0.000} mm, said {reading.Page.UncertainMm:0.000}");
            var (nearest, off) = reading.Page.Photo!.Value;
            Assert.True(MadePages.Error(nearest.Apply, page, faults) <= reading.Page.UncertainMm + off);
        }
    }

    [Fact]
    public void Bare_paper_black_paper_and_small_pictures_are_refused()
    {
        var marks = MarkSettings.Usual;
        var page = MarkLayout.Of(marks, marks.Frame(215.9, 279.4), 215.9, 279.4);
        foreach (var ink in new byte[] { 0, 255 })
        {
            foreach (var (w, h) in new[] { (1, 1), (1, 900), (850, 1100) })
            {
                var picture = new Falzkunst.Core.Pictures.InkRaster(w, h, [.. Enumerable.Repeat(ink, w * h)]);
                Assert.Equal(MarkTrouble.Missing, MarkFinder.Find(picture, page, 100 / 25.4).Refused!.Why);
                Assert.Equal(MarkTrouble.Missing, MarkFinder.Find(picture, page, null, PictureTaker.Camera).Refused!.Why);
            }
        }
    }

    [Fact]
    public void A_turned_back_is_read_by_the_marks_as_seen_from_behind()
    {
        var (page, faults, dots) = MadePages.Scan(2, dotsPerInch: 200);
        var back = page.Flipped();
        var reading = MarkFinder.Find(PageScan.Take(back, [], faults), back, dots);
        Assert.True(MadePages.Error(reading.Page!.Map.Apply, back, faults) < 0.05);
        Assert.Null(MarkFinder.Find(PageScan.Take(back, [], faults), page, dots).Page);
    }

    private static MarkCorner Mirrored(MarkCorner corner) => corner switch
    {
        MarkCorner.TopLeft => MarkCorner.TopRight,
        MarkCorner.TopRight => MarkCorner.TopLeft,
        MarkCorner.BottomLeft => MarkCorner.BottomRight,
        _ => MarkCorner.BottomLeft,
    };
}
