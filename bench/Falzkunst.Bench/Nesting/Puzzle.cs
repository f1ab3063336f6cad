using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Bench.Nesting;

/// <summary>A sheet cut at random into pieces by straight and curved cuts: a job whose best answer is known.</summary>
public static class Puzzle
{
    private const double LeastShare = 0.25;

    /// <summary>The job of one puzzle.</summary>
    /// <param name="count">Pieces.</param>
    /// <param name="seed">Equal seeds, equal puzzles.</param>
    /// <param name="slack">The sheet is larger by this on each side, mm; or with <paramref name="shrunk"/> each piece smaller.</param>
    /// <param name="shrunk">The slack lies about the pieces instead of about the whole.</param>
    public static NestJob Make(int count, int seed, double slack, bool shrunk)
    {
        var dice = new Random(seed * 1000 + count);
        var (width, height) = (Math.Round(150 + 150 * dice.NextDouble()), Math.Round(150 + 150 * dice.NextDouble()));
        var parts = new List<Region> { Region.FromRings([new(0, 0), new(width, 0), new(width, height), new(0, height)], []) };
        while (parts.Count < count)
        {
            var largest = parts.MaxBy(p => p.Area)!;
            if (Cut(largest, dice) is not { } halves) continue;
            parts.Remove(largest);
            parts.AddRange(halves);
        }
        var pieces = parts.Select((p, i) =>
        {
            var part = shrunk ? p.Grow(-slack, Corners.Sharp, 1) : p;
            var turned = part.Rings.First().Select(Affine.Turn(90 * dice.Next(4)).Apply).ToList();
            return new NestPiece($"part{i + 1}", Path.Polyline(turned, true), 1);
        }).OrderBy(_ => dice.Next()).ToImmutableArray();
        var over = shrunk ? 0 : 2 * slack;
        return new NestJob([new NestSheet("sheet", width + over, height + over, new Borders(0, 0, 0, 0), count)], pieces, 0);
    }

    private static List<Region>? Cut(Region part, Random dice)
    {
        var box = Box.Around(part.Rings.SelectMany(r => r));
        var reach = box.Width + box.Height;
        var middle = new Point(box.MinX + box.Width * (0.3 + 0.4 * dice.NextDouble()), box.MinY + box.Height * (0.3 + 0.4 * dice.NextDouble()));
        // Across the longer side, at a slant, straight or waved.
        var angle = (box.Width > box.Height ? Math.PI / 2 : 0) + (dice.NextDouble() - 0.5) * 1.2;
        var (along, across) = (new Point(Math.Cos(angle), Math.Sin(angle)), new Point(-Math.Sin(angle), Math.Cos(angle)));
        var (wave, phase, length) = (dice.Next(2) == 0 ? 0 : 3 + 9 * dice.NextDouble(), dice.NextDouble() * 6, 40 + 60 * dice.NextDouble());
        var steps = wave == 0 ? 1 : (int)(2 * reach / 4);
        var line = Enumerable.Range(0, steps + 1).Select(i =>
        {
            var t = -reach + 2 * reach * i / steps;
            return middle + along * t + across * (wave * Math.Sin(phase + t * 2 * Math.PI / length));
        }).ToList();
        var side = Region.FromRings([.. line, line[^1] + across * (2 * reach), line[0] + across * (2 * reach)], []);
        var (one, other) = (part.And(side), part.Minus(side));
        if (one.PartCount != 1 || other.PartCount != 1 || one.OpeningCount + other.OpeningCount > 0) return null;
        return Math.Min(one.Area, other.Area) < LeastShare * part.Area ? null : [one, other];
    }
}
