using Falzkunst.Core.Catalogue;

namespace Falzkunst.Core.Running;

/// <summary>A tool as a hand knows it: two pens of different colour or tip are two tools.</summary>
internal readonly record struct ToolInHand(Tool Tool, string? Ink, double? TipMm = null);

/// <summary>The holder that a tool runs in.</summary>
/// <param name="Holder">The holder.</param>
/// <param name="PutIn">A hand puts the tool in for this pass.</param>
/// <param name="AtStart">The holder was empty, so that the tool can be put in before the run begins.</param>
internal readonly record struct ToolChange(Holder Holder, bool PutIn, bool AtStart);

/// <summary>
/// Which holder carries which tool when, with the fewest changes that there are. For holders alike that is to replace the tool
/// whose next use is farthest away (Belady 1966); where some holders take fewer tools than others it can be one change too many,
/// so that all ways are looked at, by dynamic programming over what the holders carry, in Belady's order.
/// </summary>
internal static class ToolChangePlan
{
    /// <summary>For each needed tool in order.</summary>
    /// <exception cref="PlanRefused">No holder of the machine takes a tool.</exception>
    public static List<ToolChange> For(IReadOnlyList<ToolInHand> needed, Machine machine)
    {
        foreach (var tool in needed) if (!machine.Takes(tool.Tool)) throw new PlanRefused(machine.Name, tool.Tool);
        var search = new Search(needed, machine);
        var carried = new ToolInHand?[machine.Holders.Length];
        var plan = new List<ToolChange>();
        for (var i = 0; i < needed.Count; i++)
        {
            var holder = search.Best(i, carried).Holder;
            plan.Add(new(machine.Holders[holder], carried[holder] != needed[i], carried[holder] is null));
            carried[holder] = needed[i];
        }
        return plan;
    }

    private sealed class Search(IReadOnlyList<ToolInHand> needed, Machine machine)
    {
        private readonly Dictionary<(int At, string Carried), (int Changes, int Holder)> _known = [];

        /// <summary>The fewest changes from a place in the sequence on, and the holder for the tool needed there.</summary>
        public (int Changes, int Holder) Best(int at, ToolInHand?[] carried)
        {
            if (at == needed.Count) return (0, -1);
            if (Array.IndexOf(carried, needed[at]) is >= 0 and var there) return (Best(at + 1, carried).Changes, there);
            var key = (at, string.Join(';', carried));
            if (_known.TryGetValue(key, out var known)) return known;
            var best = (Changes: int.MaxValue, Holder: -1);
            foreach (var holder in Fitting(at, carried))
            {
                var after = (ToolInHand?[])carried.Clone();
                after[holder] = needed[at];
                var changes = (carried[holder] is null ? 0 : 1) + Best(at + 1, after).Changes;
                if (changes < best.Changes) best = (changes, holder);
            }
            return _known[key] = best;
        }

        /// <summary>Holders that take the tool: empty ones first, those that take least before others; then by the next use of what they carry, farthest first.</summary>
        private IEnumerable<int> Fitting(int at, ToolInHand?[] carried) => Enumerable.Range(0, carried.Length)
            .Where(h => machine.Holders[h].Tools.Contains(needed[at].Tool))
            .OrderBy(h => carried[h] is not null)
            .ThenBy(h => carried[h] is null ? machine.Holders[h].Tools.Length : 0)
            .ThenByDescending(h => carried[h] is { } tool ? NextUse(at, tool) : 0);

        private int NextUse(int from, ToolInHand tool)
        {
            for (var i = from; i < needed.Count; i++)
            {
                if (needed[i] == tool) return i;
            }
            return int.MaxValue;
        }
    }
}
