using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting.Search;

namespace Falzkunst.Core.Nesting.Jigsaw;

/// <summary>Brings the copies of a jigsaw from their cells to places where nothing overlaps, or by no more than is put right at the end.</summary>
internal sealed class JigsawPlaces(Arrangement arrangement, Box usable)
{
    /// <summary>A place found on the grid is moved no farther than this, mm.</summary>
    private const double Nudge = 1.5;

    /// <summary>
    /// Where no place near by is quite free, one is taken on which shapes this much smaller, mm, are free: what was laid before
    /// lies a little off, and is moved with it.
    /// </summary>
    private const double Tight = 0.7;

    /// <summary>Once all have been moved, shapes this much smaller, mm, are free.</summary>
    private const double Leeway = 0.25;

    private const double FirstStep = 1;
    private const double LastStep = 0.002;
    private const int MostSteps = 160;

    private const double FirstEase = 0.3;
    private const double LastEase = 0.03;
    private const double EaseDown = 0.6;
    private const int RoundsOfAStep = 6;

    private static readonly Point[] Ways = [new(0, -1), new(-1, 0), new(1, 0), new(0, 1), new(-1, -1), new(1, -1), new(-1, 1), new(1, 1)];

    private readonly Dictionary<(Orientation Orientation, double By), CollisionShape> _smaller = [];

    /// <summary>A copy laid.</summary>
    public readonly record struct Laid(int Copy, Orientation Orientation, double X, double Y);

    /// <summary>The copies that lie.</summary>
    public List<Laid> Placed(Pose[] poses)
    {
        var laid = new List<Laid>();
        for (var i = 0; i < poses.Length; i++) if (poses[i].Board >= 0) laid.Add(new(i, arrangement.Task.Copies[i].Kind[poses[i].Orientation], poses[i].X, poses[i].Y));
        return laid;
    }

    /// <summary>
    /// A place near by where nothing overlaps, as far up and to the side as it gives; where there is none, one that is tight.
    /// Null where there is neither.
    /// </summary>
    public (Point At, bool IsTight)? Near(int copy, Orientation orientation, Point wanted, List<Laid> placed)
    {
        var range = orientation.Within(usable);
        if (range.IsEmpty) return null;
        var (left, right) = (Math.Max(range.MinX, wanted.X - Nudge), Math.Min(range.MaxX, wanted.X + Nudge));
        var (top, bottom) = (Math.Max(range.MinY, wanted.Y - Nudge), Math.Min(range.MaxY, wanted.Y + Nudge));
        if (left > right || top > bottom) return null;
        var (x, y) = (Math.Clamp(wanted.X, left, right), Math.Clamp(wanted.Y, top, bottom));
        var loss = Loss(x, y);
        var (step, tries) = (FirstStep, 0);
        while (loss > 0 && step > LastStep && tries++ < MostSteps)
        {
            var (bestX, bestY, best) = (x, y, loss);
            foreach (var way in Ways)
            {
                var (tx, ty) = (Math.Clamp(x + step * way.X, left, right), Math.Clamp(y + step * way.Y, top, bottom));
                var there = Loss(tx, ty);
                if (there < best) (bestX, bestY, best) = (tx, ty, there);
                if (best == 0) break;
            }
            if (best < loss) (x, y, loss) = (bestX, bestY, best);
            else step /= 2;
        }
        if (loss > 0)
        {
            var here = new Laid(copy, orientation, x, y);
            return placed.Exists(p => Meet(here, p, Tight)) ? null : (new Point(x, y), true);
        }
        for (var turn = 0; turn < 3; turn++)
        {
            if (Touching(0, -1) is { } up) y -= up;
            // What comes so near to the right edge belongs there; else to whatever it touches first.
            if (range.MaxX - x <= Nudge && Loss(range.MaxX, y) == 0) x = range.MaxX;
            else if (Touching(-1, 0) is { } toLeft) x -= toLeft;
            else if (Touching(1, 0) is { } toRight) x += toRight;
        }
        return (new Point(x, y), false);

        // How far it may go that way until it touches something; null where it touches nothing within reach.
        double? Touching(double dx, double dy)
        {
            double free = 0;
            for (var part = Nudge; part > LastStep; part /= 2)
            {
                var (tx, ty) = (x + dx * (free + part), y + dy * (free + part));
                if (range.Contains(new Point(tx, ty)) && Loss(tx, ty) == 0) free += part;
            }
            return free > 2 * Nudge - 10 * LastStep ? null : free;
        }

        float Loss(double tx, double ty) => LossOf(orientation, tx, ty, placed, except: -1);
    }

    /// <summary>Moves what is laid a little, all together, until nothing overlaps or nothing more is gained; false where some still do by more than the leeway.</summary>
    public bool Ease(Pose[] poses)
    {
        var laid = Placed(poses);
        var (step, rounds) = (FirstEase, 0);
        while (step > LastEase)
        {
            var (isEased, isStuck) = (true, true);
            for (var k = 0; k < laid.Count; k++)
            {
                var (here, loss) = (laid[k], LossOf(laid[k].Orientation, laid[k].X, laid[k].Y, laid, k));
                if (loss == 0) continue;
                isEased = false;
                var (range, best, least) = (here.Orientation.Within(usable), here, loss);
                foreach (var way in Ways)
                {
                    var there = here with { X = Math.Clamp(here.X + step * way.X, range.MinX, range.MaxX), Y = Math.Clamp(here.Y + step * way.Y, range.MinY, range.MaxY) };
                    if (LossOf(there.Orientation, there.X, there.Y, laid, k) is var l && l < least) (best, least) = (there, l);
                }
                if (least >= loss * 0.999f) continue;
                isStuck = false;
                laid[k] = best;
            }
            if (isEased) break;
            if (isStuck || ++rounds % RoundsOfAStep == 0) step *= EaseDown;
        }
        foreach (var l in laid) poses[l.Copy] = poses[l.Copy] with { X = l.X, Y = l.Y };
        for (var k = 1; k < laid.Count; k++)
        {
            for (var j = 0; j < k; j++) if (Meet(laid[k], laid[j], Leeway)) return false;
        }
        return true;
    }

    private float LossOf(Orientation orientation, double x, double y, List<Laid> laid, int except)
    {
        float sum = 0;
        var box = orientation.Spaced.Box.Move(x, y);
        for (var k = 0; k < laid.Count; k++)
        {
            var other = laid[k];
            if (k == except || !Arrangement.MayMeet(box, other.Orientation.Spaced.Box.Move(other.X, other.Y))) continue;
            arrangement.Looks++;
            sum += CollisionShape.Overlap(orientation.Spaced, (float)(x - other.X), (float)(y - other.Y), other.Orientation.Spaced);
        }
        return sum;
    }

    /// <summary>They overlap even where both are smaller by so much.</summary>
    private bool Meet(Laid a, Laid b, double by)
    {
        arrangement.Looks++;
        return CollisionShape.Meets(Smaller(a, by), (float)(a.X - b.X), (float)(a.Y - b.Y), Smaller(b, by));
    }

    private CollisionShape Smaller(Laid laid, double by)
    {
        if (_smaller.TryGetValue((laid.Orientation, by), out var known)) return known;
        var kind = arrangement.Task.Copies[laid.Copy].Kind;
        return _smaller[(laid.Orientation, by)] = kind.Smaller(kind.OrientationOf(laid.Orientation), by);
    }
}
