using System.Runtime.InteropServices;
using System.Runtime.Intrinsics;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting.Search;

/// <summary>
/// A flat shape in one turn, laid out for asking quickly whether it meets another and by how much: its edges and its poles,
/// circles that fill most of it, in single precision about its own origin. The measure of overlap is that of poles whose
/// penetration decays smoothly to nothing (Gardeyn, Wauters, "Decoupling geometry from optimization in 2D irregular cutting
/// and packing", 2025); whether two meet at all is decided by their edges.
/// </summary>
internal sealed class CollisionShape
{
    private const int Lanes = 8;

    /// <summary>Where the poles lie that only fill up the room, mm.</summary>
    private const double FarAway = 1e6;

    /// <summary>Below this share of the larger size a penetration counts by its decay.</summary>
    private const float DecayShare = 0.01f;

    /// <summary>Boxes are compared with the rounding of single precision in mind, mm.</summary>
    private const double Slack = 0.01;

    private readonly float[] _x0, _y0, _x1, _y1;
    private readonly float[] _left, _top, _right, _bottom;
    private readonly float[] _poleX, _poleY, _poleR;
    private readonly float _decay;

    /// <summary>Fourth root of the hull's area: large shapes weigh more.</summary>
    private readonly float _heft;

    /// <param name="rings">Outline and openings, the first corner not repeated.</param>
    /// <param name="poles">Circles inside, the largest first.</param>
    /// <param name="hullArea">Of the outline's convex hull, mm².</param>
    public CollisionShape(IReadOnlyList<Point[]> rings, IReadOnlyList<(Point Centre, double Radius)> poles, double hullArea)
    {
        var edges = rings.Sum(r => r.Length);
        var room = (edges + Lanes - 1) / Lanes * Lanes;
        (_x0, _y0, _x1, _y1) = (new float[room], new float[room], new float[room], new float[room]);
        (_left, _top, _right, _bottom) = (new float[room], new float[room], new float[room], new float[room]);
        var e = 0;
        var box = Box.Empty;
        foreach (var ring in rings)
        {
            for (int i = 0, j = ring.Length - 1; i < ring.Length; j = i++, e++)
            {
                (_x0[e], _y0[e], _x1[e], _y1[e]) = ((float)ring[j].X, (float)ring[j].Y, (float)ring[i].X, (float)ring[i].Y);
                (_left[e], _right[e]) = (MathF.Min(_x0[e], _x1[e]), MathF.Max(_x0[e], _x1[e]));
                (_top[e], _bottom[e]) = (MathF.Min(_y0[e], _y1[e]), MathF.Max(_y0[e], _y1[e]));
                box = box.Include(ring[i]);
            }
        }
        for (; e < room; e++) (_left[e], _right[e], _top[e], _bottom[e]) = (float.MaxValue, float.MinValue, float.MaxValue, float.MinValue);
        Box = box;
        var poleRoom = (poles.Count + Lanes - 1) / Lanes * Lanes;
        (_poleX, _poleY, _poleR) = (new float[poleRoom], new float[poleRoom], new float[poleRoom]);
        for (var p = 0; p < poleRoom; p++)
        {
            // Those that fill the room up touch nothing.
            var (centre, radius) = p < poles.Count ? poles[p] : (new Point(FarAway, FarAway), 0);
            (_poleX[p], _poleY[p], _poleR[p]) = ((float)centre.X, (float)centre.Y, (float)radius);
        }
        PoleCount = poles.Count;
        _decay = DecayShare * (float)Math.Max(box.Width, box.Height);
        _heft = (float)Math.Sqrt(Math.Sqrt(Math.Max(hullArea, 1e-6)));
    }

    /// <summary>Bounds about its origin, mm.</summary>
    public Box Box { get; }

    public int PoleCount { get; }

    /// <summary>By how much a shape moved by (dx, dy) overlaps another; 0 where they do not meet.</summary>
    public static float Overlap(CollisionShape a, float dx, float dy, CollisionShape b)
    {
        var decay = MathF.Max(a._decay, b._decay);
        var amount = PoleOverlap(a, dx, dy, b, decay, out var touch);
        if (!touch && !Meets(a, dx, dy, b, polesAsked: true)) return 0;
        return MathF.Sqrt(amount + decay * decay) * a._heft * b._heft;
    }

    /// <summary>A shape moved by (dx, dy) and another have area in common, or their edges cross.</summary>
    public static bool Meets(CollisionShape a, float dx, float dy, CollisionShape b) => Meets(a, dx, dy, b, polesAsked: false);

    private static bool Meets(CollisionShape a, float dx, float dy, CollisionShape b, bool polesAsked)
    {
        if (!polesAsked && PolesTouch(a, dx, dy, b)) return true;
        if (EdgesCross(a, dx, dy, b)) return true;
        // Without a crossing one can only lie wholly within the other.
        return IsWithin(a, dx, dy, b) && b.Contains(a._poleX[0] + dx, a._poleY[0] + dy)
            || IsWithin(b, -dx, -dy, a) && a.Contains(b._poleX[0] - dx, b._poleY[0] - dy);
    }

    private static bool IsWithin(CollisionShape a, float dx, float dy, CollisionShape b) =>
        a.Box.MinX + dx >= b.Box.MinX - Slack && a.Box.MaxX + dx <= b.Box.MaxX + Slack && a.Box.MinY + dy >= b.Box.MinY - Slack && a.Box.MaxY + dy <= b.Box.MaxY + Slack;

    /// <summary>Even-odd over all rings.</summary>
    public bool Contains(float x, float y)
    {
        if (x < Box.MinX || x > Box.MaxX || y < Box.MinY || y > Box.MaxY) return false;
        var inside = false;
        for (var e = 0; e < _x0.Length; e++)
        {
            if (_y0[e] > y != _y1[e] > y && x < (_x1[e] - _x0[e]) * (y - _y0[e]) / (_y1[e] - _y0[e]) + _x0[e]) inside = !inside;
        }
        return inside;
    }

    private static float PoleOverlap(CollisionShape a, float dx, float dy, CollisionShape b, float decay, out bool touch)
    {
        var (decays, decaysSquared) = (Vector256.Create(decay), Vector256.Create(decay * decay));
        var twice = decays + decays;
        var (sum, most) = (Vector256<float>.Zero, Vector256.Create(float.MinValue));
        ref var bx = ref MemoryMarshal.GetArrayDataReference(b._poleX);
        ref var by = ref MemoryMarshal.GetArrayDataReference(b._poleY);
        ref var br = ref MemoryMarshal.GetArrayDataReference(b._poleR);
        for (var i = 0; i < a.PoleCount; i++)
        {
            var (x, y, r) = (Vector256.Create(a._poleX[i] + dx), Vector256.Create(a._poleY[i] + dy), Vector256.Create(a._poleR[i]));
            for (nuint k = 0; k < (nuint)b._poleX.Length; k += Lanes)
            {
                var (ox, oy) = (Vector256.LoadUnsafe(ref bx, k) - x, Vector256.LoadUnsafe(ref by, k) - y);
                var otherR = Vector256.LoadUnsafe(ref br, k);
                var depth = r + otherR - Vector256.Sqrt(ox * ox + oy * oy);
                most = Vector256.MaxNative(most, depth);
                var counted = Vector256.ConditionalSelect(Vector256.GreaterThanOrEqual(depth, decays), depth, decaysSquared / (twice - depth));
                sum += counted * Vector256.MinNative(r, otherR);
            }
        }
        touch = Vector256.GreaterThanAny(most, Vector256<float>.Zero);
        return Vector256.Sum(sum) * MathF.PI;
    }

    private static bool PolesTouch(CollisionShape a, float dx, float dy, CollisionShape b)
    {
        ref var bx = ref MemoryMarshal.GetArrayDataReference(b._poleX);
        ref var by = ref MemoryMarshal.GetArrayDataReference(b._poleY);
        ref var br = ref MemoryMarshal.GetArrayDataReference(b._poleR);
        for (var i = 0; i < a.PoleCount; i++)
        {
            var (x, y, r) = (Vector256.Create(a._poleX[i] + dx), Vector256.Create(a._poleY[i] + dy), Vector256.Create(a._poleR[i]));
            for (nuint k = 0; k < (nuint)b._poleX.Length; k += Lanes)
            {
                var (ox, oy) = (Vector256.LoadUnsafe(ref bx, k) - x, Vector256.LoadUnsafe(ref by, k) - y);
                var reach = r + Vector256.LoadUnsafe(ref br, k);
                if (Vector256.LessThanAny(ox * ox + oy * oy, reach * reach)) return true;
            }
        }
        return false;
    }

    private static bool EdgesCross(CollisionShape a, float dx, float dy, CollisionShape b)
    {
        // What both boxes share, in b's frame; edges outside it cross nothing.
        // A little more of it, since an edge on the rim of its box may be rounded off it.
        const float More = (float)Slack;
        var left = MathF.Max((float)a.Box.MinX + dx, (float)b.Box.MinX) - More;
        var right = MathF.Min((float)a.Box.MaxX + dx, (float)b.Box.MaxX) + More;
        var top = MathF.Max((float)a.Box.MinY + dy, (float)b.Box.MinY) - More;
        var bottom = MathF.Min((float)a.Box.MaxY + dy, (float)b.Box.MaxY) + More;
        if (left > right || top > bottom) return false;

        var near = Scratch(ref _near, a._x0.Length);
        var count = a.EdgesIn(left - dx, top - dy, right - dx, bottom - dy, near);
        if (count == 0) return false;
        var nearB = Scratch(ref _nearB, b._x0.Length);
        var countB = b.EdgesIn(left, top, right, bottom, nearB);
        if (countB == 0) return false;

        var room = (countB + Lanes - 1) / Lanes * Lanes;
        var gathered = Scratch(ref _gathered, 4 * room);
        var x0 = gathered[..room];
        var y0 = gathered.Slice(room, room);
        var x1 = gathered.Slice(2 * room, room);
        var y1 = gathered.Slice(3 * room, room);
        for (var k = 0; k < room; k++)
        {
            // The last one again fills the room up.
            var e = nearB[Math.Min(k, countB - 1)];
            (x0[k], y0[k], x1[k], y1[k]) = (b._x0[e], b._y0[e], b._x1[e], b._y1[e]);
        }
        for (var k = 0; k < count; k++)
        {
            var e = near[k];
            var (ax, ay) = (a._x0[e] + dx, a._y0[e] + dy);
            var (ux, uy) = (a._x1[e] - a._x0[e], a._y1[e] - a._y0[e]);
            var (px, py, vx, vy) = (Vector256.Create(ax), Vector256.Create(ay), Vector256.Create(ux), Vector256.Create(uy));
            for (var m = 0; m < room; m += Lanes)
            {
                var cx = Vector256.Create<float>(x0.Slice(m, Lanes));
                var cy = Vector256.Create<float>(y0.Slice(m, Lanes));
                var wx = Vector256.Create<float>(x1.Slice(m, Lanes)) - cx;
                var wy = Vector256.Create<float>(y1.Slice(m, Lanes)) - cy;
                var (qx, qy) = (cx - px, cy - py);
                // Which side of the one edge the ends of the other lie on, both ways.
                var s0 = vx * qy - vy * qx;
                var s1 = s0 + vx * wy - vy * wx;
                var t0 = wy * qx - wx * qy;
                var t1 = t0 + vx * -wy + vy * wx;
                var crossing = Vector256.LessThan(s0 * s1, Vector256<float>.Zero) & Vector256.LessThan(t0 * t1, Vector256<float>.Zero);
                if (crossing != Vector256<float>.Zero) return true;
            }
        }
        return false;
    }

    [ThreadStatic] private static int[]? _near;
    [ThreadStatic] private static int[]? _nearB;
    [ThreadStatic] private static float[]? _gathered;

    private static Span<T> Scratch<T>(ref T[]? kept, int length)
    {
        if (kept is null || kept.Length < length) kept = new T[Math.Max(length, 512)];
        return kept.AsSpan(0, length);
    }

    private int EdgesIn(float left, float top, float right, float bottom, Span<int> found)
    {
        var (l, t, r, b) = (Vector256.Create(left), Vector256.Create(top), Vector256.Create(right), Vector256.Create(bottom));
        var count = 0;
        for (nuint k = 0; k < (nuint)_x0.Length; k += Lanes)
        {
            var hit = Vector256.LessThanOrEqual(Vector256.LoadUnsafe(ref MemoryMarshal.GetArrayDataReference(_left), k), r)
                & Vector256.GreaterThanOrEqual(Vector256.LoadUnsafe(ref MemoryMarshal.GetArrayDataReference(_right), k), l)
                & Vector256.LessThanOrEqual(Vector256.LoadUnsafe(ref MemoryMarshal.GetArrayDataReference(_top), k), b)
                & Vector256.GreaterThanOrEqual(Vector256.LoadUnsafe(ref MemoryMarshal.GetArrayDataReference(_bottom), k), t);
            var bits = hit.ExtractMostSignificantBits();
            while (bits != 0)
            {
                found[count++] = (int)k + System.Numerics.BitOperations.TrailingZeroCount(bits);
                bits &= bits - 1;
            }
        }
        return count;
    }
}
