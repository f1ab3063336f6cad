using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Bench.Nesting;

/// <summary>Outlines as they come up on cards, mm.</summary>
internal static class CardShapes
{
    public static NestPiece Rectangle(string id, double w, double h, int count) => new(id, Path.Rectangle(0, 0, w, h), count);

    public static NestPiece Frame(string id, double w, double h, double rim, int count) =>
        new(id, Path.Rectangle(0, 0, w, h), count) { Openings = [Path.Rectangle(rim, rim, w - 2 * rim, h - 2 * rim)] };

    /// <summary>A round frame.</summary>
    public static NestPiece Ring(string id, double radius, double rim, int count) =>
        new(id, Round(radius, 48, _ => 1), count) { Openings = [Round(radius - rim, 48, _ => 1)] };

    public static NestPiece Scallop(string id, double radius, int bows, int count) =>
        new(id, Round(radius, bows * 8, t => 1 + 0.09 * Math.Abs(Math.Sin(t * bows / 2))), count);

    public static NestPiece Star(string id, double radius, int points, int count) =>
        new(id, Line(Enumerable.Range(0, 2 * points).Select(i => Polar(i % 2 == 0 ? radius : radius * 0.42, Math.PI * i / points - Math.PI / 2))), count);

    public static NestPiece Leaf(string id, double length, double width, int count)
    {
        var upper = Enumerable.Range(0, 17).Select(i => i / 16.0).Select(t => new Point(length * t, width / 2 * Math.Sin(Math.PI * Math.Pow(t, 0.8)) + 0.15 * length * Math.Sin(Math.PI * t)));
        var lower = Enumerable.Range(1, 15).Select(i => 1 - i / 16.0).Select(t => new Point(length * t, -width / 2 * Math.Sin(Math.PI * Math.Pow(t, 0.8)) + 0.15 * length * Math.Sin(Math.PI * t)));
        return new(id, Line(upper.Concat(lower)), count);
    }

    /// <summary>A luggage tag with its hole.</summary>
    public static NestPiece Tag(string id, double w, double h, int count) =>
        new(id, Line([new(0, 0), new(w, 0), new(w, h * 0.75), new(w * 0.7, h), new(w * 0.3, h), new(0, h * 0.75)]), count)
        {
            Openings = [Round(2.5, 16, _ => 1).Map(Affine.Move(w / 2, h * 0.86))],
        };

    /// <summary>One wing of a gate-fold with a waved edge.</summary>
    public static NestPiece Gate(string id, double w, double h, double wave, int count) =>
        new(id, Line([new(0, 0), .. Enumerable.Range(0, 25).Select(i => new Point(w + wave * Math.Sin(2 * Math.PI * i / 24), h * i / 24)), new(0, h)]), count);

    /// <summary>A ridge of hills over a level edge.</summary>
    public static NestPiece Hills(string id, double w, double h, int count) =>
        new(id, Line([new(0, h), .. Enumerable.Range(0, 33).Select(i => i / 32.0).Select(t => new Point(w * t, h * (0.45 - 0.3 * Math.Sin(5.3 * t) - 0.15 * Math.Sin(13 * t + 1)))), new(w, h)]), count);

    /// <summary>A viaduct: arches open at the lower edge.</summary>
    public static NestPiece Viaduct(string id, double w, double h, int arches, int count)
    {
        var bay = w / arches;
        var lower = Enumerable.Range(0, arches).Reverse().SelectMany(a =>
        {
            var (left, right, radius) = (a * bay + 0.12 * bay, (a + 1) * bay - 0.12 * bay, 0.38 * bay);
            return new Point[] { new(right, h) }
                .Concat(Enumerable.Range(0, 13).Select(i => new Point(a * bay + bay / 2 + radius * Math.Cos(Math.PI * i / 12), h * 0.55 - radius * Math.Sin(Math.PI * i / 12))))
                .Append(new(left, h));
        });
        return new(id, Line([new(0, 0), new(w, 0), new(w, h), .. lower, new(0, h)]), count);
    }

    /// <summary>Block letters of a height, drawn on a grid of five by seven.</summary>
    public static NestPiece Letter(char letter, double height, int count)
    {
        var grid = height / 7;
        (double X, double Y)[] corners = letter switch
        {
            'L' => [(0, 0), (1.4, 0), (1.4, 5.6), (5, 5.6), (5, 7), (0, 7)],
            'T' => [(0, 0), (5, 0), (5, 1.4), (3.2, 1.4), (3.2, 7), (1.8, 7), (1.8, 1.4), (0, 1.4)],
            'E' => [(0, 0), (5, 0), (5, 1.4), (1.4, 1.4), (1.4, 2.8), (4, 2.8), (4, 4.2), (1.4, 4.2), (1.4, 5.6), (5, 5.6), (5, 7), (0, 7)],
            'H' => [(0, 0), (1.4, 0), (1.4, 2.8), (3.6, 2.8), (3.6, 0), (5, 0), (5, 7), (3.6, 7), (3.6, 4.2), (1.4, 4.2), (1.4, 7), (0, 7)],
            'V' => [(0, 0), (1.5, 0), (2.5, 4.6), (3.5, 0), (5, 0), (3.2, 7), (1.8, 7)],
            'N' => [(0, 0), (1.4, 0), (3.6, 4.2), (3.6, 0), (5, 0), (5, 7), (3.6, 7), (1.4, 2.8), (1.4, 7), (0, 7)],
            'F' => [(0, 0), (5, 0), (5, 1.4), (1.4, 1.4), (1.4, 2.8), (4, 2.8), (4, 4.2), (1.4, 4.2), (1.4, 7), (0, 7)],
            'K' => [(0, 0), (1.4, 0), (1.4, 2.8), (3.4, 0), (5, 0), (2.7, 3.4), (5, 7), (3.4, 7), (1.4, 4.2), (1.4, 7), (0, 7)],
            _ => throw new ArgumentOutOfRangeException(nameof(letter)),
        };
        return new($"letter {letter} {height:0}", Line(corners.Select(c => new Point(c.X * grid, c.Y * grid))), count);
    }

    public static NestPiece O(double height, int count) =>
        new($"letter O {height:0}", Round(height / 2, 32, _ => 1), count) { Openings = [Round(height / 2 * 0.62, 32, _ => 1)] };

    /// <summary>A tram seen from the side, with its bow and windows.</summary>
    public static NestPiece Tram(string id, double w, int count) =>
        new(id, Line([new(0, .42 * w), new(0, .2 * w), new(.05 * w, .14 * w), new(.4 * w, .14 * w), new(.34 * w, .02 * w), new(.36 * w, 0), new(.64 * w, 0), new(.66 * w, .02 * w), new(.6 * w, .14 * w), new(.95 * w, .14 * w), new(w, .2 * w), new(w, .42 * w)]), count)
        {
            Openings = [.. Enumerable.Range(0, 5).Select(i => Path.Rectangle(.07 * w + i * .18 * w, .19 * w, .13 * w, .1 * w))],
        };

    /// <summary>A lantern on its hook.</summary>
    public static NestPiece Lantern(string id, double h, int count) =>
        new(id, Line([new(.3 * h, 0), new(.36 * h, 0), new(.36 * h, .15 * h), new(.55 * h, .28 * h), new(.5 * h, .9 * h), new(.4 * h, h), new(.26 * h, h), new(.16 * h, .9 * h), new(.11 * h, .28 * h), new(.3 * h, .15 * h)]), count);

    private static Path Round(double radius, int corners, Func<double, double> factor) => Line(Enumerable.Range(0, corners)
        .Select(i => 2 * Math.PI * i / corners).Select(t => Polar(radius * factor(t), t)));

    private static Point Polar(double radius, double angle) => new(radius * Math.Cos(angle), radius * Math.Sin(angle));

    private static Path Line(IEnumerable<Point> corners) => Path.Polyline(corners, closed: true);
}
