using System.Runtime.InteropServices;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;

namespace Falzkunst.Core.Tracing;

/// <summary>
/// The lines along which ink has one amount (marching squares after Lorensen and Cline 1987), each place found to a fraction of a dot: where
/// both sides are even, by how much of the dots between is covered, which is exact for straight edges; elsewhere by linear interpolation
/// between the middles of dots. Where ink touches only at a corner, the mean of the four dots decides.
/// </summary>
internal static class Contours
{
    /// <summary>Closed lines, in dots; what is inked lies to the right of the way, so that outer lines have an area above 0 and those of holes below.</summary>
    /// <param name="raster">The ink; there is none outside.</param>
    /// <param name="threshold">From how much on a dot is inked.</param>
    /// <param name="leastArea">Lines round less, in dots, are left out.</param>
    /// <param name="budget">Work is drawn from it.</param>
    /// <param name="dropped">How many were left out.</param>
    public static List<Point[]> Find(InkRaster raster, double threshold, double leastArea, Budget budget, out int dropped)
    {
        var (width, height, ink) = (raster.Width, raster.Height, raster.Ink);
        // Lines begin where paper turns to ink from left to right; the first such step of each is met first.
        var seen = new System.Collections.BitArray((width + 1) * height);
        var limit = (int)Math.Ceiling(threshold);
        var found = new List<Point[]>();
        var points = new List<Point>();
        dropped = 0;
        for (var y = 0; y < height; y++)
        {
            budget.Work(width / 8 + 1);
            var row = y * width;
            var before = false;
            for (var x = 0; x < width; x++)
            {
                var now = ink[row + x] >= limit;
                if (now && !before && !seen[y * (width + 1) + x])
                {
                    Follow(x, y);
                    budget.Work(points.Count);
                    if (Math.Abs(Polygons.SignedArea(CollectionsMarshal.AsSpan(points))) < leastArea) dropped++;
                    else found.Add([.. points]);
                }
                before = now;
            }
        }
        return found;

        bool Inked(int x, int y) => (uint)x < (uint)width && (uint)y < (uint)height && ink[y * width + x] >= limit;

        // A line crosses a step between two dots that lie side by side; the way has the inked dot to its right.
        void Follow(int startX, int startY)
        {
            points.Clear();
            // The inked dot, and the way in which the line passes it: up, with the paper at its left.
            var (x, y, way) = (startX, startY, 0);
            do
            {
                var (px, py) = (x + LeftX[way], y + LeftY[way]);
                points.Add(Between(px, py, x, y));
                if (way == 0) seen[y * (width + 1) + x] = true;
                // Ahead of the pair lie one dot on the paper's side and one on the ink's.
                var (aheadX, aheadY) = (x + AheadX[way], y + AheadY[way]);
                var (besideX, besideY) = (px + AheadX[way], py + AheadY[way]);
                var (ahead, beside) = (Inked(aheadX, aheadY), Inked(besideX, besideY));
                var turnsLeft = beside && (ahead || raster.At(x, y) + raster.At(px, py) + raster.At(aheadX, aheadY) + raster.At(besideX, besideY) >= 4 * threshold);
                if (turnsLeft) (x, y, way) = (besideX, besideY, (way + 3) % 4);
                else if (ahead) (x, y) = (aheadX, aheadY);
                else way = (way + 1) % 4;
            }
            while (x != startX || y != startY || way != 0);
        }

        Point Between(int px, int py, int x, int y)
        {
            var share = Math.Clamp(Share(px, py, x - px, y - py), 0, 1);
            return new Point(px + 0.5 + (x - px) * share, py + 0.5 + (y - py) * share);
        }

        // How far from the middle of the dot with paper towards that with ink.
        double Share(int px, int py, int dx, int dy)
        {
            int Step(int k) => raster.At(px + k * dx, py + k * dy);
            var (paper, one, two, ink) = (Step(-1), Step(0), Step(1), Step(2));
            var contrast = ink - paper;
            // Even on both sides: what the dots between are covered by together tells the edge exactly, as far as it is straight.
            if (contrast > LeastContrast && Math.Abs(Step(-2) - paper) <= contrast * Even && Math.Abs(Step(3) - ink) <= contrast * Even)
                return 1.5 - (one - paper + two - paper) / (double)contrast;
            return two > one ? (threshold - one) / (two - one) : 0.5;
        }
    }

    /// <summary>Of 255; with less there is no telling noise from edges.</summary>
    private const int LeastContrast = 60;

    /// <summary>Dots that differ by no more of the contrast are even.</summary>
    private const double Even = 0.04;

    // Ways: up, right, down, left.
    private static readonly int[] AheadX = [0, 1, 0, -1], AheadY = [-1, 0, 1, 0], LeftX = [-1, 0, 1, 0], LeftY = [0, -1, 0, 1];
}
