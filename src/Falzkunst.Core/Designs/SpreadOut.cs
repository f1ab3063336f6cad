using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>Pieces laid beside each other on the light table, in ledger order, so that each can be seen.</summary>
public static class SpreadOut
{
    /// <summary>Paper shown between two pieces, mm.</summary>
    private const double GapMm = 12;

    /// <summary>Width to height that the whole should come near to: that of the light table.</summary>
    private const double WishedAspect = 1.72;

    /// <summary>For each piece a map from its own coordinates to the table's, turned as it is on the card; rows are filled from the left and centred on their line.</summary>
    public static ImmutableArray<Affine> Arrange(Design design)
    {
        var turned = design.Pieces.Select(p => p.Place with { E = 0, F = 0 }).ToList();
        var boxes = design.Pieces.Select((p, i) => p.Outline.Path.BoundsUnder(turned[i])).ToList();
        if (boxes.Count == 0) return [];
        var area = boxes.Sum(b => (b.Width + GapMm) * (b.Height + GapMm));
        var widest = boxes.Max(b => b.Width);
        // Row widths tried around the square root of the area; the one whose whole comes nearest to the table's shape is taken.
        var best = Enumerable.Range(6, 20)
            .Select(step => Math.Max(widest, Math.Sqrt(area * WishedAspect) * step / 10))
            .Select(width => (Width: width, Rows: Rows(boxes, width)))
            .MinBy(t => Scale(t.Rows));
        return [.. Places(boxes, best.Rows).Select((place, i) => turned[i].Then(place))];
    }

    /// <summary>Smaller is better: the larger of width and aspect-weighted height decides how small all is drawn.</summary>
    private static double Scale(List<Row> rows) =>
        Math.Max(rows.Max(r => r.Width), WishedAspect * (rows.Sum(r => r.Height) + GapMm * (rows.Count - 1)));

    private static List<Row> Rows(List<Box> boxes, double width)
    {
        var rows = new List<Row>();
        for (var i = 0; i < boxes.Count; i++)
        {
            if (rows.Count == 0 || rows[^1].Width + GapMm + boxes[i].Width > width + 1e-6) rows.Add(new Row());
            rows[^1].Add(i, boxes[i], GapMm);
        }
        return rows;
    }

    private static ImmutableArray<Affine> Places(List<Box> boxes, List<Row> rows)
    {
        var places = new Affine[boxes.Count];
        double top = 0;
        foreach (var row in rows)
        {
            double left = 0;
            foreach (var i in row.Items)
            {
                places[i] = Affine.Move(left - boxes[i].MinX, top + (row.Height - boxes[i].Height) / 2 - boxes[i].MinY);
                left += boxes[i].Width + GapMm;
            }
            top += row.Height + GapMm;
        }
        return [.. places];
    }

    private sealed class Row
    {
        public List<int> Items { get; } = [];
        public double Width { get; private set; }
        public double Height { get; private set; }

        public void Add(int index, Box box, double gap)
        {
            Width += (Items.Count == 0 ? 0 : gap) + box.Width;
            Height = Math.Max(Height, box.Height);
            Items.Add(index);
        }
    }
}
