using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs.ArtSheets;

/// <summary>One line of a drawing, by its shape and its place in that.</summary>
public readonly record struct ArtPath(int Shape, int Path);

/// <summary>What a person sees as one on a sheet: lines of a drawing, in its order.</summary>
/// <param name="Number">1 for the first in reading order: by rows from the top, from the left.</param>
/// <param name="Paths">Its lines.</param>
/// <param name="Box">Round all of it, mm on the page.</param>
public sealed record ArtMotif(int Number, ImmutableArray<ArtPath> Paths, Box Box)
{
    /// <summary>The drawing with nothing in it but this motif; every line keeps its form exactly.</summary>
    public Drawing In(Drawing drawing) => drawing with
    {
        Shapes = [.. Paths.GroupBy(p => p.Shape).OrderBy(g => g.Key).Select(g => drawing.Shapes[g.Key] is var shape && g.Count() == shape.Paths.Length
            ? shape : shape with { Paths = [.. g.OrderBy(p => p.Path).Select(p => shape.Paths[p.Path])] })],
        Pictures = [],
    };
}

/// <summary>
/// Finds the motifs of a sheet, in order: lines that belong together by the file's own groups (<see cref="GroupLevel"/>); the others
/// by nearness, single linkage cut at the largest jump between distances (<see cref="Linkage"/>); what a hand joined or parted;
/// reading order.
/// </summary>
public static class ArtMotifs
{
    /// <summary>The motifs of a drawing.</summary>
    /// <param name="links">What hangs together in it, made once for a drawing.</param>
    /// <param name="cut">Where the linkage is cut, and what was joined and parted by hand.</param>
    public static ImmutableArray<ArtMotif> Find(Linkage links, MotifCut cut)
    {
        var motifs = Numbered(links.Clusters(cut.Level), links);
        foreach (var change in cut.Changes)
        {
            motifs = change.IsJoin ? Joined(motifs, change.Motifs, links) : Parted(motifs, change.Motifs, links);
        }
        return motifs;
    }

    private static ImmutableArray<ArtMotif> Joined(ImmutableArray<ArtMotif> motifs, ImmutableArray<int> numbers, Linkage links)
    {
        var together = motifs.Where(m => numbers.Contains(m.Number)).SelectMany(m => m.Paths).ToList();
        return together.Count == 0 ? motifs : Numbered([.. motifs.Where(m => !numbers.Contains(m.Number)).Select(m => m.Paths.ToList()), together], links);
    }

    private static ImmutableArray<ArtMotif> Parted(ImmutableArray<ArtMotif> motifs, ImmutableArray<int> numbers, Linkage links) =>
        Numbered([.. motifs.SelectMany(m => numbers.Contains(m.Number) ? links.Part(m.Paths) : [m.Paths.ToList()])], links);

    private static ImmutableArray<ArtMotif> Numbered(List<List<ArtPath>> clusters, Linkage links)
    {
        var motifs = clusters.Select(c => new ArtMotif(0, [.. c.OrderBy(p => p.Shape).ThenBy(p => p.Path)], c.Aggregate(Box.Empty, (all, p) => all.Include(links.BoxOf(p))))).ToList();
        return [.. ReadingOrder.Sort(motifs, m => m.Box).Select((m, i) => m with { Number = i + 1 })];
    }
}
