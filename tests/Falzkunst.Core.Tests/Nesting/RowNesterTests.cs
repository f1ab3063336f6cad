using CsCheck;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting;

namespace Falzkunst.Core.Tests.Nesting;

public sealed class RowNesterTests
{
    private static readonly Gen<NestJob> Jobs =
        from sheets in (from w in Gen.Double[60, 320] from h in Gen.Double[60, 320] from n in Gen.Int[0, 4] select (w, h, n)).Array[1, 3]
        from pieces in (from w in Gen.Double[4, 340] from h in Gen.Double[4, 340] from n in Gen.Int[1, 6] select (w, h, n)).Array[1, 12]
        from spacing in Gen.Double[0, 8]
        select new NestJob(
            [.. sheets.Select((s, i) => new NestSheet($"s{i}", s.w, s.h, new Borders(5, 4, 6, 3), s.n))],
            [.. pieces.Select((p, i) => new NestPiece($"p{i}", Path.Rectangle(-7, 11, p.w, p.h), p.n))], spacing);

    [Fact]
    public void Every_copy_is_placed_validly_once_or_left_with_a_reason() => Jobs.Sample(job =>
    {
        var result = new RowNester().Nest(job);
        foreach (var sheets in result.Sheets.GroupBy(s => s.Sheet)) Assert.True(sheets.Count() <= job.Sheets.Single(s => s.Id == sheets.Key).Count);
        foreach (var nested in result.Sheets)
        {
            var sheet = job.Sheets.Single(s => s.Id == nested.Sheet);
            var usable = new Box(sheet.Borders.Left, sheet.Borders.Top, sheet.Width - sheet.Borders.Right, sheet.Height - sheet.Borders.Bottom);
            var boxes = nested.Placements.Select(p => job.Pieces.Single(q => q.Id == p.Id).Outline.Map(p.Place).Bounds).ToList();
            Assert.NotEmpty(boxes);
            for (var i = 0; i < boxes.Count; i++)
            {
                Assert.True(usable.Contains(boxes[i], 1e-5));
                for (var k = 0; k < i; k++) Assert.True(Apart(boxes[i], boxes[k]) >= job.SpacingMm - 1e-5);
            }
        }
        foreach (var piece in job.Pieces)
        {
            var placed = result.Sheets.SelectMany(s => s.Placements).Where(p => p.Id == piece.Id).Select(p => p.Copy).ToList();
            var left = result.Left.Where(l => l.Id == piece.Id).ToList();
            Assert.Equal(Enumerable.Range(1, placed.Count), placed.Order());
            Assert.Equal(piece.Quantity, placed.Count + left.Sum(l => l.Copies));
            Assert.All(left, l => Assert.EndsWith(".", l.Reason, StringComparison.Ordinal));
        }
    }, iter: 500);

    [Fact]
    public void A_piece_that_fits_only_turned_is_turned()
    {
        var job = new NestJob([new NestSheet("s", 110, 60, new Borders(5, 5, 5, 5), 1)], [new NestPiece("p", Path.Rectangle(0, 0, 40, 90), 1)], 0);
        var placement = Assert.Single(Assert.Single(new RowNester().Nest(job).Sheets).Placements);
        Assert.Equal(new Box(5, 5, 95, 45), Path.Rectangle(0, 0, 40, 90).Map(placement.Place).Bounds);
    }

    [Fact]
    public void A_piece_that_exactly_fills_the_usable_area_fits()
    {
        var job = new NestJob([new NestSheet("s", 110, 60, new Borders(5, 5, 5, 5), 2)], [new NestPiece("p", Path.Rectangle(0, 0, 100, 50), 2)], 3);
        Assert.Equal(2, new RowNester().Nest(job).Sheets.Length);
    }

    private static double Apart(Box a, Box b) => Math.Max(
        Math.Max(a.MinX - b.MaxX, b.MinX - a.MaxX), Math.Max(a.MinY - b.MaxY, b.MinY - a.MaxY));
}
