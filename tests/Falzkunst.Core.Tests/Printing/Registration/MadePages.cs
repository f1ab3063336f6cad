using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Printing.Registration;

namespace Falzkunst.Core.Tests.Printing.Registration;

/// <summary>Pages with marks as scanners and cameras show them, with faults of every size that is asked for; each number gives its own.</summary>
internal static class MadePages
{
    /// <summary>What a scan may do: shift 4 mm, any quarter and 2° more, scale 1 %, skew 0.3°, noise 8 %, blur 1.5 dots, light 40 %, spread 0.1 mm.</summary>
    public static (MarkLayout Page, ScanFaults Faults, double DotsPerMm) Scan(int number, int? dotsPerInch = null)
    {
        var random = new Random(number);
        double Within(double most) => (random.NextDouble() * 2 - 1) * most;
        var (w, h) = number % 2 == 0 ? (215.9, 279.4) : (210.0, 297.0);
        var marks = new MarkSettings(random.Next(6, 20), random.Next(10, 25), random.Next(3, 10) / 10.0, 5) { HasFourth = random.Next(4) == 0 };
        var s = (dotsPerInch ?? (number % 16 == 0 ? 600 : number % 2 == 0 ? 300 : 200)) / 25.4;
        var quarter = random.Next(4) * 90;
        var map = Affine.Move(-w / 2, -h / 2).Then(new Affine(1, 0, Math.Tan(Within(0.3) * Math.PI / 180), 1, 0, 0))
            .Then(Affine.Scale(s * (1 + Within(0.01)), s * (1 + Within(0.01)))).Then(Affine.Turn(Within(2) + quarter));
        var (across, down) = quarter % 180 == 0 ? (w, h) : (h, w);
        var (width, height) = ((int)((across + 10) * s), (int)((down + 10) * s));
        map = map.Then(Affine.Move(width / 2.0 + Within(4) * s, height / 2.0 + Within(4) * s));
        return (MarkLayout.Of(marks, marks.Frame(w, h), w, h), new ScanFaults(width, height, Projection.From(map), number)
        {
            SpreadMm = random.NextDouble() * 0.1,
            BlurDots = random.NextDouble() * 1.5,
            Noise = random.NextDouble() * 0.08,
            LightFall = random.NextDouble() * 0.4,
            LightDegrees = random.Next(360),
            Smudges = [.. Enumerable.Range(0, 8).Select(_ => new Smudge(new Point(random.NextDouble() * w, random.NextDouble() * h), 1 + random.NextDouble() * 5, 0.3 * random.NextDouble(), false))],
        }, s);
    }

    /// <summary>Twelve megapixels from about 30 cm, leaning to 15° both ways; the lens bends as told.</summary>
    public static (MarkLayout Page, ScanFaults Faults) Photo(int number, double bend, bool hasFourth)
    {
        var random = new Random(number);
        double Within(double most) => (random.NextDouble() * 2 - 1) * most;
        var marks = MarkSettings.Usual with { HasFourth = hasFourth };
        const double W = 215.9, H = 279.4, Focus = 3400;
        const int Width = 3000, Height = 4000;
        var (sx, cx) = Math.SinCos(Within(15) * Math.PI / 180);
        var (sy, cy) = Math.SinCos(Within(15) * Math.PI / 180);
        var (st, ct) = Math.SinCos(Within(8) * Math.PI / 180);
        var away = 310 + random.NextDouble() * 30;
        // The page turned in its plane, leaned about its upright and then its level middle line, and seen by a pinhole.
        (double X, double Y, double Z) Turned(double x, double y)
        {
            var (a, b) = (ct * x - st * y, st * x + ct * y);
            return (cy * a, cx * b + sx * sy * a, sx * b - cx * sy * a);
        }
        var (ex, ey, o) = (Turned(1, 0), Turned(0, 1), Turned(-W / 2, -H / 2));
        double Row(double v, double z, double middle) => Focus * v + middle * z;
        var map = new Projection(
            Row(ex.X, ex.Z, Width / 2), Row(ey.X, ey.Z, Width / 2), Row(o.X, o.Z + away, Width / 2),
            Row(ex.Y, ex.Z, Height / 2), Row(ey.Y, ey.Z, Height / 2), Row(o.Y, o.Z + away, Height / 2),
            ex.Z, ey.Z, o.Z + away);
        return (MarkLayout.Of(marks, marks.Frame(W, H), W, H), new ScanFaults(Width, Height, map, number)
        {
            SpreadMm = 0.04,
            BlurDots = 1,
            Noise = 0.02,
            LightFall = 0.25,
            LightDegrees = random.Next(360),
            Bend = Within(bend),
        });
    }

    /// <summary>How far a map is from the true one at the worst of 49 places of the sheet, mm.</summary>
    public static double Error(Func<Point, Point> map, MarkLayout page, ScanFaults faults)
    {
        var truth = new PictureMap(faults.Map, faults.Bend, new Point(faults.Width / 2.0, faults.Height / 2.0), new Point(faults.Width, faults.Height).Length / 2);
        return Enumerable.Range(0, 49).Select(i => new Point(page.Width * (i % 7) / 6, page.Height * (i / 7) / 6)).Max(p => map(p).DistanceTo(truth.Apply(p)) / truth.ScaleAt(p));
    }
}
