using System.Collections.Immutable;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;

namespace Falzkunst.Core.Printing.Registration;

/// <summary>What took a picture of a page.</summary>
public enum PictureTaker
{
    /// <summary>Not known: a scan where it fits one, a photo where it does not.</summary>
    Either,

    /// <summary>Flat on a glass: the page is turned, scaled and sheared, no more.</summary>
    Scanner,

    /// <summary>From some way off: far ends are smaller.</summary>
    Camera,
}

/// <summary>
/// Reads the registration marks of a page from its picture. In order: ink by a local threshold (<see cref="LocalInk"/>); shapes that
/// are an L (<see cref="SeenMarks"/>); which is which mark (<see cref="MarkMatch"/>); both edges of each arm to a fraction of a dot with
/// robust lines through them (<see cref="ArmReading"/>); the map that fits all arms (<see cref="ScanFit"/>, <see cref="PhotoFit"/>);
/// checks by what the map was not made of (<see cref="ReadingChecks"/>). Where anything disagrees, it is refused with mark and reason.
/// </summary>
public static class MarkFinder
{
    /// <summary>Resolutions that are read, dots to the inch.</summary>
    public const double LeastDotsPerInch = 100, MostDotsPerInch = 2400;

    /// <summary>A page in a photo is taken to fill at least and at most so much of the picture's length.</summary>
    private const double LeastFill = 0.3, MostFill = 1.15;

    /// <summary>Far ends of a photographed page are smaller by this at least; otherwise it is a scan, whatever its marks are like.</summary>
    private const double LeastTaper = 0.008;

    /// <summary>A picture that may be a scan with a wrong mark must fit as a photo without doubt, mm.</summary>
    private const double MostUncertainMm = 0.6, MostResidualMm = 0.12;

    /// <summary>A picture whose page is larger or smaller than its resolution says by more than this was not taken by a scanner.</summary>
    private const double ScaleOfNoScan = 0.15;

    /// <summary>A mark that no shape was found for is looked for so far from where two others put it, mm.</summary>
    private const double SearchMm = 2.2;

    /// <summary>A mark whose shape was found is known to a few dots, mm and dots.</summary>
    private const double SeenSearchMm = 0.6, SeenSearchDots = 3;

    /// <summary>Ink spreads by a tenth of a millimetre to both sides and a little more; a blur of one and a half dots widens what a low threshold sees by four.</summary>
    private const double WidenedMm = 0.24, WidenedDots = 4;

    /// <summary>Each reading of the arms is made along the map of the last one; after the third nothing moves by a hundredth of a dot.</summary>
    private const int Rounds = 3;

    /// <summary>Matches that are read where several are as good: each pair of three marks gives one, and one upside down.</summary>
    private const int MostTried = 3;

    /// <param name="picture">The page, dark where there is ink.</param>
    /// <param name="layout">The marks it should have.</param>
    /// <param name="dotsPerMm">Dots of the picture to a millimetre as it states them; null where it does not.</param>
    /// <param name="taker">What took it.</param>
    public static MarkReading Find(InkRaster picture, MarkLayout layout, double? dotsPerMm, PictureTaker taker = PictureTaker.Either)
    {
        if (layout.Marks.Length < MarkLayout.LeastMarks) throw new ArgumentException("Three marks at least are needed.", nameof(layout));
        var stated = dotsPerMm is { } d && d * 25.4 is >= LeastDotsPerInch and <= MostDotsPerInch ? dotsPerMm : null;
        if (taker == PictureTaker.Camera) return AsPhoto(picture, layout);
        var scan = AsScan(picture, layout, stated);
        if (scan.Page is not null || taker == PictureTaker.Scanner) return scan;
        // Freedom that a scan does not need would let a wrong mark pass: a photo must show that it is one.
        var photo = AsPhoto(picture, layout);
        if (photo.Page is { } page) return IsPhotoFor(page, layout, stated) ? photo : scan;
        // Where the picture is like no scan of this page, what is wrong with the photo says more.
        return scan.Found.IsEmpty && !photo.Found.IsEmpty ? photo : scan;
    }

    private static bool IsPhotoFor(ReadPage page, MarkLayout layout, double? stated)
    {
        if (stated is { } dots && Math.Abs(page.DotsPerMm / dots - 1) > ScaleOfNoScan) return true;
        // Where nothing states a resolution, as cameras do not, less speaks for a scan.
        var loose = stated is null ? 2 : 1;
        return page.UncertainMm < MostUncertainMm * loose && page.ResidualMm < MostResidualMm * loose && Taper(page.Map.Straight, layout) > LeastTaper;
    }

    private static MarkReading AsScan(InkRaster picture, MarkLayout layout, double? dotsPerMm)
    {
        var scales = dotsPerMm is { } known ? (Least: known * 0.97, Most: known * 1.03) : Fill(picture, layout);
        var seen = Shapes(picture, layout, scales, degrees: 8, uneven: 0.08);
        var slack = new MatchSlack(dotsPerMm ?? 0, dotsPerMm is null ? 0.03 : 0.02, Degrees: 4, PlaceOff: 0.015);
        var matches = MarkMatch.All(seen, layout, slack);
        if (matches.Count == 0) return Unmatched(seen, layout);
        // Two marks of opposite corners fit a sheet and the same sheet upside down: the one is taken of which more is seen.
        var tried = matches[0].Marks.Count == layout.Marks.Length ? 1 : MostTried;
        return matches.Where(m => m.Marks.Count == matches[0].Marks.Count).Take(tried).Select(m => Along(picture, layout, seen, m, dotsPerMm)).MaxBy(r => (r.Reading.Page is not null, r.Seen)).Reading;
    }

    /// <summary>Reads a scan along one match, and says how much of all arms is seen.</summary>
    private static (MarkReading Reading, double Seen) Along(InkRaster picture, MarkLayout layout, List<SeenMark> seen, MarkMatch match, double? dotsPerMm)
    {
        var start = Coarse(match, layout);
        var scale = dotsPerMm ?? start.MeanScale;
        List<ArmReading> arms = [];
        ScanFit? fit = null;
        for (var round = 0; round < Rounds; round++)
        {
            var map = PictureMap.Plain(Projection.From(fit?.Map ?? start));
            arms = ReadArms(picture, layout, match, map, isFirst: fit is null);
            fit = ScanFit.Of([.. Whole(arms)], scale);
            if (fit is null) break;
        }
        var share = arms.Sum(a => a.Seen);
        var checks = new ReadingChecks(layout, arms, match, seen, PictureMap.Plain(Projection.From(fit?.Map ?? start)), scale);
        if (checks.First(fit is null) is { } refused) return (new MarkReading(checks.Sure, null, refused), share);
        var taken = fit!.Map;
        if (dotsPerMm is null) scale = taken.MeanScale;
        if (ReadingChecks.Scale(taken, scale) is { } off) return (new MarkReading(checks.Sure, null, off), share);
        double Uncertain(Point at) => fit.ScatterAt(at) * ReadingChecks.Deviations + ReadingChecks.FloorMm;
        return (new MarkReading(checks.Sure, new ReadPage(PictureMap.Plain(Projection.From(taken)), scale, checks.ResidualMm, Corners(layout).Max(Uncertain), checks.SpreadMm) { UncertainAt = Uncertain }, null), share);
    }

    private static MarkReading AsPhoto(InkRaster picture, MarkLayout layout)
    {
        var seen = Shapes(picture, layout, Fill(picture, layout), degrees: 25, uneven: 0.3);
        var slack = new MatchSlack(0, 0.4, Degrees: 20, PlaceOff: 0.22);
        var matches = MarkMatch.All(seen, layout, slack);
        if (matches.FirstOrDefault() is not { } best || best.Marks.Count < layout.Marks.Length) return Unmatched(seen, layout, matches.FirstOrDefault());
        // How far a page leans is not known yet, and another shape near by may fit as well.
        MarkReading? first = null;
        foreach (var match in matches.Where(m => m.Marks.Count == layout.Marks.Length).DistinctBy(m => string.Join(' ', layout.Marks.Select(k => m.Marks[k.Corner].Corner))).Take(MostTried))
        {
            var reading = PhotoAlong(picture, layout, seen, match);
            if (reading.Page is not null) return reading;
            first ??= reading;
        }
        return first!;
    }

    private static MarkReading PhotoAlong(InkRaster picture, MarkLayout layout, List<SeenMark> seen, MarkMatch match)
    {
        List<Point> from = [], to = [];
        foreach (var mark in layout.Marks)
        {
            var (form, shape) = (mark.Form, match.Marks[mark.Corner]);
            from.AddRange([form.Corner, form.First, form.Second]);
            to.AddRange([shape.Corner, shape.First, shape.Second]);
        }
        if (ProjectionFit.Of(from, to) is not { } first) return Unmatched(seen, layout);
        var map = PictureMap.Plain(first.Positive(layout.Centre));
        List<ArmReading> arms = [];
        PhotoFit? fit = null;
        for (var round = 0; round < Rounds; round++)
        {
            arms = ReadArms(picture, layout, match, map, isFirst: fit is null);
            fit = PhotoFit.Of([.. Whole(arms)], layout, map.Straight, picture.Width, picture.Height, Spread(arms));
            if (fit is null) break;
            map = fit.Map;
        }
        var scale = map.ScaleAt(layout.Centre);
        var checks = new ReadingChecks(layout, arms, match, seen, map, scale) { IsPhoto = true };
        if (checks.First(fit is null) is { } refused) return new MarkReading(checks.Sure, null, refused);
        var uncertain = fit!.UncertainMm + ReadingChecks.FloorMm;
        return new MarkReading(checks.Sure, new ReadPage(map, scale, checks.ResidualMm, uncertain, checks.SpreadMm) { UncertainAt = _ => uncertain, Photo = (fit.Nearest, fit.NearestOffMm) }, null);
    }

    /// <summary>Half the widening of the arms' lines, mm: ink spreads to both sides alike.</summary>
    internal static double Spread(IReadOnlyCollection<ArmReading> arms) => Whole(arms).Select(a => (a.WidthMm - a.Arm.Mark.LineMm) / 2).DefaultIfEmpty(0).Average();

    private static IEnumerable<ArmReading> Whole(IEnumerable<ArmReading> arms) => arms.Where(a => a.Seen > 0);

    private static (double Least, double Most) Fill(InkRaster picture, MarkLayout layout)
    {
        var most = Math.Max(picture.Width, picture.Height) / Math.Max(layout.Width, layout.Height);
        return (most * LeastFill, most * MostFill);
    }

    private static List<SeenMark> Shapes(InkRaster picture, MarkLayout layout, (double Least, double Most) scale, double degrees, double uneven)
    {
        var line = layout.Marks.Min(m => m.LineMm);
        // Where the scale is not known, lines may be as thin as it allows.
        var ink = LocalInk.Of(picture, line * Math.Sqrt(scale.Least * scale.Most));
        var (least, most) = (layout.Marks.Min(m => m.ArmMm) * scale.Least * 0.9 - 3, layout.Marks.Max(m => m.ArmMm) * scale.Most * 1.1 + 3);
        return SeenMarks.Find(ink, new MarkForm(least, most, layout.Marks.Max(m => m.LineMm / m.ArmMm), WidenedMm * scale.Most + WidenedDots, degrees, uneven));
    }

    /// <summary>The map through the corners of three marks; through two where there are no more.</summary>
    private static Affine Coarse(MarkMatch match, MarkLayout layout)
    {
        var marks = layout.Marks.Where(m => match.Marks.ContainsKey(m.Corner)).Take(3).ToList();
        if (marks.Count < 3) return match.Page;
        Point Seen(int i) => match.Marks[marks[i].Corner].Corner;
        return Affine.Through((marks[0].Outer, marks[1].Outer, marks[2].Outer), (Seen(0), Seen(1), Seen(2)));
    }

    private static List<ArmReading> ReadArms(InkRaster picture, MarkLayout layout, MarkMatch match, PictureMap map, bool isFirst) => [.. layout.Marks.SelectMany(m =>
    {
        var dot = 1 / map.ScaleAt(m.Outer);
        var search = !isFirst ? 2 * dot : match.Marks.ContainsKey(m.Corner) ? Math.Max(SeenSearchMm, SeenSearchDots * dot) : SearchMm;
        return m.Arms.Select(a => ArmReading.Read(picture, a, map, search));
    })];

    private static MarkReading Unmatched(List<SeenMark> seen, MarkLayout layout, MarkMatch? best = null)
    {
        if (best is null) return new MarkReading([], null, seen.Count >= 2 ? new MarkRefusal(null, MarkTrouble.OtherLayout, seen[0].Corner) : new MarkRefusal(null, MarkTrouble.Missing, null));
        var missing = layout.Marks.First(m => !best.Marks.ContainsKey(m.Corner));
        return new MarkReading([.. best.Marks.Keys.Order()], null, ReadingChecks.Lacking(missing, best, seen, best.Page.Apply(missing.Outer), MarkTrouble.Missing));
    }

    /// <summary>By what share the scale differs over the sheet.</summary>
    private static double Taper(Projection map, MarkLayout layout)
    {
        var scales = Corners(layout).Select(map.ScaleAt).ToList();
        return scales.Max() / scales.Min() - 1;
    }

    internal static ImmutableArray<Point> Corners(MarkLayout layout) => [new(0, 0), new(layout.Width, 0), new(layout.Width, layout.Height), new(0, layout.Height)];
}
