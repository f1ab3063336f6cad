using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Bench.Nesting;

/// <summary>Layouts to compare with: the sheets used and how far down the last is used, mm.</summary>
public sealed record BaselineLayout(List<(NestSheet Sheet, double Depth)> Sheets, int Left);

/// <summary>
/// Two plain ways to lay pieces out. Rows: by boxes, tallest first, in the first row with room. Greedy: largest area first,
/// each as far down and then as far left as no-fit polygons allow, in the allowed turn whose lower edge ends up highest,
/// openings used; the no-fit polygons are asked along level lines half a millimetre apart, exactly along each of them.
/// </summary>
public static class Baselines
{
    private const double RowStep = 0.5;

    public static BaselineLayout Rows(NestJob job)
    {
        var open = new List<(NestSheet Sheet, List<Row> Rows)>();
        var left = 0;
        var copies = job.Pieces.SelectMany(p => Enumerable.Repeat(p, p.Quantity)).OrderByDescending(p => p.Outline.Bounds.Height).ToList();
        foreach (var piece in copies)
        {
            if (open.Any(s => Put(s, piece))) continue;
            var next = Unused(job, open.Select(o => o.Sheet)).Select(s => (s, new List<Row>())).FirstOrDefault(s => Put(s, piece));
            if (next.s is null) left++;
            else open.Add(next);
        }
        return new([.. open.Select(o => (o.Sheet, o.Rows.Max(r => r.Top + r.Height)))], left);

        bool Put((NestSheet Sheet, List<Row> Rows) sheet, NestPiece piece)
        {
            foreach (var degrees in piece.Turns.IsFree ? Turns.Quarters.Degrees : piece.Turns.Degrees)
            {
                var box = piece.Outline.BoundsUnder(Affine.Turn(degrees));
                var usable = sheet.Sheet.Usable;
                var bottom = sheet.Rows.Count == 0 ? usable.MinY : sheet.Rows[^1].Top + sheet.Rows[^1].Height + job.SpacingMm;
                foreach (var row in sheet.Rows.Append(new Row { Top = bottom, Height = box.Height, Next = usable.MinX }))
                {
                    // Past zones that must not be entered; beyond an outline everything is such a zone.
                    for (var x = row.Next; box.Height <= row.Height && row.Top + box.Height <= usable.MaxY && x + box.Width <= usable.MaxX; x += 2)
                    {
                        if (!IsFree(sheet.Sheet, Region.FromRings([new(x, row.Top), new(x + box.Width, row.Top), new(x + box.Width, row.Top + box.Height), new(x, row.Top + box.Height)], []))) continue;
                        row.Next = x + box.Width + job.SpacingMm;
                        if (!sheet.Rows.Contains(row)) sheet.Rows.Add(row);
                        return true;
                    }
                }
            }
            return false;
        }
    }

    public static BaselineLayout Greedy(NestJob job)
    {
        var open = new List<(NestSheet Sheet, List<Laid> Laid)>();
        var left = 0;
        var full = new HashSet<(string, int)>();
        foreach (var piece in job.Pieces.SelectMany(p => Enumerable.Repeat(p, p.Quantity)).OrderByDescending(p => p.Area))
        {
            var done = false;
            for (var s = 0; s < open.Count && !done; s++)
            {
                done = !full.Contains((piece.Id, s)) && Put(open[s], piece);
                if (!done) full.Add((piece.Id, s));
            }
            if (done) continue;
            var next = Unused(job, open.Select(o => o.Sheet)).Select(s => (s, new List<Laid>())).FirstOrDefault(s => Put(s, piece));
            if (next.s is null) left++;
            else open.Add(next);
        }
        return new([.. open.Select(o => (o.Sheet, o.Laid.Max(l => l.Bottom)))], left);

        bool Put((NestSheet Sheet, List<Laid> Laid) sheet, NestPiece piece)
        {
            Laid? best = null;
            var turns = piece.Turns.IsFree ? Turns.Every(15).Degrees : piece.Turns.Degrees;
            var choices = turns.SelectMany(d => piece.MayMirror ? new[] { (d, false), (d, true) } : [(d, false)]).ToList();
            var found = new Laid?[choices.Count];
            Parallel.For(0, choices.Count, i => found[i] = Lowest(sheet.Sheet, sheet.Laid, piece, choices[i].d, choices[i].Item2, job.SpacingMm));
            foreach (var laid in found)
            {
                if (laid is not null && (best is null || laid.Bottom < best.Bottom - 1e-9)) best = laid;
            }
            if (best is null) return false;
            sheet.Laid.Add(best);
            return true;
        }
    }

    private sealed class Row
    {
        public double Top { get; init; }
        public double Height { get; init; }
        public double Next { get; set; }
    }

    private sealed record Laid(Point[][] Spaced, Box Box, double Bottom);

    private static Laid? Lowest(NestSheet sheet, List<Laid> laid, NestPiece piece, double degrees, bool mirrored, double spacing)
    {
        var map = (mirrored ? Affine.Scale(-1, 1) : Affine.Identity).Then(Affine.Turn(degrees));
        Point[][] own = [.. piece.Openings.Prepend(piece.Outline).Select(p => p.Map(map).Flat.ToArray())];
        Point[][] spaced = spacing == 0 ? own : [.. Region.FromRings(own[0], own[1..]).Grow(spacing / 2, Corners.Round, 3).Rings];
        var (ownBox, spacedBox, usable) = (Bounds(own), Bounds(spaced), sheet.Usable);
        var zones = sheet.Blocked.Select(b => b.Flat.ToArray()).ToList();
        var border = sheet.Outline is null ? null : Region.FromRings(sheet.Outline.Flat.ToArray(), []).Grow(-sheet.OutlineBorderMm, Corners.Round, 8).Rings.ToArray();
        for (var y = usable.MinY - ownBox.MinY; y <= usable.MaxY - ownBox.MaxY + 1e-9; y += RowStep)
        {
            var (low, high) = (usable.MinX - ownBox.MinX, usable.MaxX - ownBox.MaxX);
            if (low > high + 1e-9) return null;
            var taken = new List<(double From, double To)>();
            foreach (var other in laid)
            {
                if (spacedBox.MaxY + y <= other.Box.MinY || spacedBox.MinY + y >= other.Box.MaxY) continue;
                AddSlice(spaced, y, other.Spaced, taken);
            }
            foreach (var zone in zones) AddSlice(own, y, [zone], taken);
            if (border is not null) AddSlice(own, y, border, taken);
            taken.Sort();
            // The stretches between crossings, the first of them in which nothing lies within anything.
            var x = low;
            for (var k = 0; ; k++)
            {
                var next = k < taken.Count ? taken[k].From : double.PositiveInfinity;
                if (next > x + 1e-9 && !Holds(Math.Min((x + Math.Min(next, high + 1)) / 2, high), y))
                {
                    return new Laid([.. spaced.Select(r => r.Select(p => new Point(p.X + x, p.Y + y)).ToArray())], spacedBox.Move(x, y), ownBox.MaxY + y);
                }
                if (k == taken.Count) break;
                x = Math.Max(x, taken[k].To);
                if (x > high) break;
            }

            bool Holds(double tx, double ty)
            {
                var corner = new Point(own[0][0].X + tx, own[0][0].Y + ty);
                return laid.Any(l => Polygons.Contains(l.Spaced, new Point(spaced[0][0].X + tx, spaced[0][0].Y + ty)) || Polygons.Contains(spaced, new Point(l.Spaced[0][0].X - tx, l.Spaced[0][0].Y - ty)))
                    || zones.Any(z => Polygons.Contains([z], corner) || Polygons.Contains(own, new Point(z[0].X - tx, z[0].Y - ty)))
                    || border is not null && !Polygons.Contains(border, corner);
            }
        }
        return null;
    }

    /// <summary>Where along a level line a shape's edges cross another's: a slice of the boundary of their no-fit polygon.</summary>
    private static void AddSlice(Point[][] shape, double y, Point[][] other, List<(double, double)> taken)
    {
        foreach (var ring in shape)
        {
            for (int i = 0, j = ring.Length - 1; i < ring.Length; j = i++)
            {
                var (a, b) = (ring[j], ring[i]);
                var (low, high) = (Math.Min(a.Y, b.Y) + y, Math.Max(a.Y, b.Y) + y);
                foreach (var otherRing in other)
                {
                    for (int m = 0, n = otherRing.Length - 1; m < otherRing.Length; n = m++)
                    {
                        var (c, d) = (otherRing[n], otherRing[m]);
                        var (from, to) = (Math.Max(low, Math.Min(c.Y, d.Y)), Math.Min(high, Math.Max(c.Y, d.Y)));
                        if (to < from || to == from && low != high && c.Y != d.Y) continue;
                        if (low == high || c.Y == d.Y)
                        {
                            // A level edge crosses all along its length.
                            if (low == high && c.Y == d.Y) continue;
                            var (level, slant, y0) = low == high ? ((a, b), (c, d), low) : ((c, d), (a, b), c.Y - y);
                            var at = Across(slant.Item1, slant.Item2, y0);
                            var (left, right) = (Math.Min(level.Item1.X, level.Item2.X), Math.Max(level.Item1.X, level.Item2.X));
                            taken.Add(low == high ? (at - right, at - left) : (left - at, right - at));
                            continue;
                        }
                        var (one, two) = (Across(c, d, from) - Across(a, b, from - y), Across(c, d, to) - Across(a, b, to - y));
                        taken.Add((Math.Min(one, two), Math.Max(one, two)));
                    }
                }
            }
        }

        static double Across(Point a, Point b, double y) => a.X + (b.X - a.X) * (y - a.Y) / (b.Y - a.Y);
    }

    private static bool IsFree(NestSheet sheet, Region box) =>
        sheet.Blocked.All(b => box.And(Region.FromRings(b.Flat.ToArray(), [])).Area < 1e-6)
        && (sheet.Outline is null || box.Minus(Region.FromRings(sheet.Outline.Flat.ToArray(), []).Grow(-sheet.OutlineBorderMm, Corners.Round, 8)).Area < 1e-6);

    private static IEnumerable<NestSheet> Unused(NestJob job, IEnumerable<NestSheet> used)
    {
        var count = used.GroupBy(s => s.Id).ToDictionary(g => g.Key, g => g.Count());
        return job.Sheets.Where(s => count.GetValueOrDefault(s.Id) < s.Count).OrderByDescending(s => s.IsOffcut);
    }

    private static Box Bounds(Point[][] rings) => Box.Around(rings.SelectMany(r => r));
}
