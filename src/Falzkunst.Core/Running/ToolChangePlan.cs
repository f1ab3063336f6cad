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
/// Which holder carries which tool when, with the fewest changes: a tool is put where none is yet, else it replaces the one
/// whose next use is farthest away (Belady 1966, optimal for a known sequence).
/// </summary>
internal static class ToolChangePlan
{
    /// <summary>For each needed tool in order.</summary>
    /// <exception cref="PlanRefused">No holder of the machine takes a tool.</exception>
    public static List<ToolChange> For(IReadOnlyList<ToolInHand> needed, Machine machine)
    {
        var carried = new Dictionary<Holder, ToolInHand>();
        var plan = new List<ToolChange>();
        for (var i = 0; i < needed.Count; i++)
        {
            var tool = needed[i];
            var there = carried.FirstOrDefault(c => c.Value == tool).Key;
            if (there is not null)
            {
                plan.Add(new(there, false, false));
                continue;
            }
            var fitting = machine.Holders.Where(h => h.Tools.Contains(tool.Tool)).ToList();
            if (fitting.Count == 0)
                throw new PlanRefused(machine.Name, tool.Tool);
            var empty = fitting.Where(h => !carried.ContainsKey(h)).MinBy(h => h.Tools.Length);
            var holder = empty ?? fitting.MaxBy(h => NextUse(needed, i, carried[h]))!;
            carried[holder] = tool;
            plan.Add(new(holder, true, empty is not null));
        }
        return plan;
    }

    private static int NextUse(IReadOnlyList<ToolInHand> needed, int from, ToolInHand tool)
    {
        for (var i = from; i < needed.Count; i++)
        {
            if (needed[i] == tool) return i;
        }
        return int.MaxValue;
    }
}
