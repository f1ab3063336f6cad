using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting;

/// <summary>
/// Pieces in rows by their boxes, tallest first, each in the first row with room (first-fit decreasing height; Coffman,
/// Garey, Johnson, Tarjan 1980). A piece is given a quarter turn only where it does not fit upright.
/// </summary>
public sealed class RowNester : INester
{
    public NestResult Nest(NestJob job)
    {
        var left = new List<NotNested>();
        var open = new List<OpenSheet>();
        var used = job.Sheets.ToDictionary(s => s.Id, _ => 0);
        foreach (var piece in job.Pieces.OrderByDescending(p => p.Outline.Bounds.Height).ThenByDescending(p => p.Outline.Bounds.Width))
        {
            var size = piece.Outline.Bounds;
            if (!job.Sheets.Any(s => Fits(s, size, turned: false) || Fits(s, size, turned: true)))
            {
                left.Add(new NotNested(piece.Id, piece.Quantity, TooLarge(job, size)));
                continue;
            }
            for (var copy = 1; copy <= piece.Quantity; copy++)
            {
                if (open.Any(s => s.TryPlace(piece, copy, job.SpacingMm))) continue;
                var next = job.Sheets.FirstOrDefault(s => used[s.Id] < s.Count && Fits(s, size, false))
                    ?? job.Sheets.FirstOrDefault(s => used[s.Id] < s.Count && Fits(s, size, true));
                if (next is null)
                {
                    left.Add(new NotNested(piece.Id, piece.Quantity - copy + 1,
                        $"All {used.Values.Sum()} sheets at hand are used up."));
                    break;
                }
                used[next.Id]++;
                open.Add(new OpenSheet(next));
                open[^1].TryPlace(piece, copy, job.SpacingMm);
            }
        }
        return new NestResult([.. open.Select(s => s.Close())], [.. left]);
    }

    private static bool Fits(NestSheet sheet, Box size, bool turned)
    {
        var (w, h) = turned ? (size.Height, size.Width) : (size.Width, size.Height);
        return w <= sheet.UsableWidth + Rounding && h <= sheet.UsableHeight + Rounding;
    }

    // Boxes of curves carry the rounding of their arithmetic.
    private const double Rounding = 1e-6;

    private static string TooLarge(NestJob job, Box size)
    {
        if (job.Sheets.IsEmpty) return "There is no sheet of this stock in the drawer.";
        var largest = job.Sheets.MaxBy(s => s.UsableWidth * s.UsableHeight)!;
        return string.Create(CultureInfo.InvariantCulture,
            $"It is {size.Width:0.0} × {size.Height:0.0} mm; the largest sheet at hand leaves {largest.UsableWidth:0.0} × {largest.UsableHeight:0.0} mm inside its borders, and a quarter turn does not help.");
    }

    private sealed class OpenSheet(NestSheet sheet)
    {
        private readonly List<Row> _rows = [];
        private readonly ImmutableArray<NestPlacement>.Builder _placed = ImmutableArray.CreateBuilder<NestPlacement>();

        public NestedSheet Close() => new(sheet.Id, _placed.ToImmutable());

        public bool TryPlace(NestPiece piece, int copy, double spacing) =>
            TryPlace(piece, copy, spacing, turned: false) || TryPlace(piece, copy, spacing, turned: true);

        private bool TryPlace(NestPiece piece, int copy, double spacing, bool turned)
        {
            if (!Fits(sheet, piece.Outline.Bounds, turned)) return false;
            if (turned && Fits(sheet, piece.Outline.Bounds, turned: false)) return false;
            var turn = turned ? Affine.Turn(90) : Affine.Identity;
            var box = piece.Outline.Map(turn).Bounds;
            var row = _rows.FirstOrDefault(r => r.Next + box.Width <= sheet.UsableWidth + Rounding && box.Height <= r.Height + Rounding)
                ?? NewRow(box.Height, spacing);
            if (row is null) return false;
            var corner = new Point(sheet.Borders.Left + row.Next, sheet.Borders.Top + row.Top);
            _placed.Add(new NestPlacement(piece.Id, copy, turn.Then(Affine.Move(corner - box.Min))));
            row.Next += box.Width + spacing;
            return true;
        }

        private Row? NewRow(double height, double spacing)
        {
            var top = _rows.Count == 0 ? 0 : _rows[^1].Top + _rows[^1].Height + spacing;
            if (top + height > sheet.UsableHeight + Rounding) return null;
            _rows.Add(new Row { Top = top, Height = height });
            return _rows[^1];
        }

        private sealed class Row
        {
            public double Top { get; init; }
            public double Height { get; init; }
            public double Next { get; set; }
        }
    }
}
