using Falzkunst.Core.Budgets;

namespace Falzkunst.Core.Designs.Assembling;

/// <summary>
/// Outlines and openings by even-odd depth in a containment forest: within each ring group, and then unfilled rings into the filled piece they are
/// drawn upon, where they are its openings.
/// </summary>
internal static class ContainmentForest
{
    /// <summary>The pieces, lowest first.</summary>
    public static List<PieceDraft> Build(IReadOnlyList<ArtLine> rings, Budget budget)
    {
        var groups = rings.GroupBy(r => r.Group).Select(g => g.Select(l => new Ring(l)).ToList()).ToList();
        var drafts = new List<PieceDraft>();
        foreach (var filled in groups.Where(g => g[0].Line.Group.Fill is not null)) AddTrees(filled, [], drafts, RingForest.Parents(filled, budget));
        var painted = new PaintedPieces([.. drafts]);
        foreach (var unfilled in groups.Where(g => g[0].Line.Group.Fill is null))
        {
            var parents = RingForest.Parents(unfilled, budget);
            var hosts = new Dictionary<Ring, PieceDraft>();
            for (var i = 0; i < unfilled.Count; i++)
            {
                if (parents[i] is null && painted.Under(unfilled[i], budget) is { } host) hosts[unfilled[i]] = host;
            }
            AddTrees(unfilled, hosts, drafts, parents);
        }
        return [.. drafts.OrderBy(d => d.Outline.Line.Order).ThenByDescending(d => d.Outline.Area)];
    }

    private static void AddTrees(
        List<Ring> rings, Dictionary<Ring, PieceDraft> hosts, List<PieceDraft> drafts, Ring?[] parents)
    {
        var parentOf = rings.Zip(parents).ToDictionary(p => p.First, p => p.Second);
        var draftOf = new Dictionary<Ring, PieceDraft>();
        foreach (var ring in rings.OrderByDescending(r => r.Area))
        {
            var parent = parentOf[ring];
            if (parent is null && hosts.TryGetValue(ring, out var host))
            {
                host.AddOpening(ring);
            }
            else if (parent is not null && draftOf.TryGetValue(parent, out var outer))
            {
                outer.AddOpening(ring);
            }
            else
            {
                var draft = new PieceDraft(ring);
                draftOf[ring] = draft;
                drafts.Add(draft);
            }
        }
    }

    /// <summary>Filled pieces, asked for the topmost one that a ring was drawn upon.</summary>
    private sealed class PaintedPieces(PieceDraft[] drafts)
    {
        private readonly Geometry.BoxTree _tree = new([.. drafts.Select(d => d.Outline.Line.Path.Bounds)]);

        public PieceDraft? Under(Ring ring, Budget budget)
        {
            if (ring.Inside is not { } inside) return null;
            var near = _tree.Meeting(new Geometry.Box(inside.X, inside.Y, inside.X, inside.Y));
            budget.Work(20 + 4L * near.Count);
            // The topmost first: most often it is that one.
            return near.Select(i => drafts[i]).Where(d => d.Outline.Line.Order < ring.Line.Order).OrderByDescending(d => d.Outline.Line.Order)
                .FirstOrDefault(d => d.Outline.Holds(ring, budget) && d.Locate(inside, budget) == Whereabouts.OnPaper);
        }
    }
}
