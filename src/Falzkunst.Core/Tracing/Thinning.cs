using Falzkunst.Core.Budgets;

namespace Falzkunst.Core.Tracing;

/// <summary>
/// Ink thinned to lines one dot wide, from all sides at once (Zhang and Suen, "A fast parallel algorithm for thinning digital patterns",
/// 1984), only dots at the edge being looked at; then what still lies double on slanting lines is taken.
/// </summary>
internal static class Thinning
{
    /// <summary>Thins a mask; what is left are the middle lines.</summary>
    public static void Thin(InkMask mask, Budget budget)
    {
        var (ink, around) = (mask.IsInk, mask.Around);
        var front = Enumerable.Range(0, ink.Length).Where(i => ink[i] && around.Any(a => !ink[i + a])).ToList();
        var gone = new List<int>();
        var queued = new bool[ink.Length];
        var idle = 0;
        for (var pass = 0; idle < 2; pass++)
        {
            budget.Work(front.Count);
            gone.Clear();
            foreach (var i in front)
            {
                if (ink[i] && Goes(i, pass % 2 == 0)) gone.Add(i);
            }
            idle = gone.Count == 0 ? idle + 1 : 0;
            foreach (var i in gone) ink[i] = false;
            // What was at the edge and stays may go in the next pass; what was behind it comes to the edge.
            var next = new List<int>(front.Count);
            foreach (var i in front)
            {
                if (ink[i] && !queued[i])
                {
                    queued[i] = true;
                    next.Add(i);
                }
            }
            foreach (var i in gone)
            {
                foreach (var a in around)
                {
                    if (!ink[i + a] || queued[i + a]) continue;
                    queued[i + a] = true;
                    next.Add(i + a);
                }
            }
            foreach (var i in next) queued[i] = false;
            front = next;
        }
        foreach (var i in front.Order())
        {
            // A dot in a step of a slanting line: its neighbours hang together without it.
            if (ink[i] && IsStep(i)) ink[i] = false;
        }

        bool Goes(int i, bool first)
        {
            var (count, turns) = (0, 0);
            for (var k = 0; k < 8; k++)
            {
                var here = ink[i + around[k]];
                if (here) count++;
                else if (ink[i + around[(k + 1) % 8]]) turns++;
            }
            if (count is < 2 or > 6 || turns != 1) return false;
            bool n = ink[i + around[0]], e = ink[i + around[2]], s = ink[i + around[4]], w = ink[i + around[6]];
            return first ? !(n && e && s) && !(e && s && w) : !(n && e && w) && !(n && s && w);
        }

        bool IsStep(int i)
        {
            bool n = ink[i + around[0]], e = ink[i + around[2]], s = ink[i + around[4]], w = ink[i + around[6]];
            var corner = (n && e, e && s, s && w, w && n) switch
            {
                (true, false, false, false) => 5,
                (false, true, false, false) => 7,
                (false, false, true, false) => 1,
                (false, false, false, true) => 3,
                _ => -1,
            };
            // The dots on the far side of the corner are paper, so that nothing hangs on this one.
            return corner >= 0 && !ink[i + around[corner]] && !ink[i + around[(corner + 7) % 8]] && !ink[i + around[(corner + 1) % 8]];
        }
    }
}
