using System.Collections.Immutable;
using CsCheck;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Nesting;

public sealed class NesterTests
{
    private static readonly Borders NoBorders = new(0, 0, 0, 0);

    private static readonly Gen<Path> Blobs =
        from corners in Gen.Int[3, 9]
        from radii in Gen.Double[5, 45].Array[corners]
        from start in Gen.Double[0, 6]
        from curved in Gen.Bool
        select curved ? Rounded(radii, start) : Star(radii, start);

    private static readonly Gen<NestPiece> Pieces =
        from outline in Blobs
        from quantity in Gen.Int[0, 4]
        from turns in Gen.Int[0, 4].Select(i => new[] { Turns.None, Turns.Half, Turns.Quarters, Turns.Every(45), Turns.Free }[i])
        from mirror in Gen.Bool
        from holed in Gen.Bool
        from shift in Gen.Double[-500, 500]
        select new NestPiece("", outline.Map(Affine.Move(shift, -shift)), quantity)
        {
            Turns = turns,
            MayMirror = mirror,
            // A star shape holds every smaller copy of itself about its middle; one with curves need not.
            Openings = holed && outline.Segments.All(s => !s.IsCubic) ? [outline.Map(Affine.Scale(0.6, 0.6)).Map(Affine.Move(shift, -shift))] : [],
        };

    private static readonly Gen<NestSheet> Sheets =
        from w in Gen.Double[60, 220]
        from h in Gen.Double[60, 220]
        from count in Gen.Int[0, 3]
        from border in Gen.Double[0, 8]
        from blocked in Blobs.Array[0, 2]
        from cut in Gen.Int[0, 2]
        select new NestSheet("", w, h, new Borders(border, border / 2, border, 3), count)
        {
            Blocked = [.. blocked.Select((b, i) => b.Map(Affine.Move(w * i, h / 2)))],
            IsOffcut = cut > 0,
            OutlineBorderMm = cut == 2 ? border : 0,
            Outline = cut == 0 ? null : Path.Polyline([new(0, 0), new(w, 0), new(w, h * 0.6), new(w * 0.5, h * 0.7), new(w * 0.4, h), new(0, h)], true),
        };

    /// <summary>Gives up soon: what counts is that every answer is valid, not how good it is.</summary>
    private static readonly SearchTuning Hasty = new() { Patience = 4, Strikes = 1, Restarts = 1, Shrink = new() { BoldPatience = 4 }, Lift = new() { Patience = 4 }, Jigsaw = new() { MostWidth = 12 } };

    private static readonly Gen<NestJob> Jobs =
        from sheets in Sheets.Array[1, 3]
        from pieces in Pieces.Array[1, 6]
        from spacing in Gen.OneOf(Gen.Const(0.0), Gen.Double[0, 5])
        select new NestJob(
            [.. sheets.Select((s, i) => s with { Id = $"s{i}" })], [.. pieces.Select((p, i) => p with { Id = $"p{i}" })], spacing);

    [Fact]
    public void Every_answer_is_valid_on_the_true_curves() => Jobs.ForAll(job =>
    {
        var answers = new List<NestResult>();
        Nest(job, new NestEffort(TimeSpan.FromHours(1), Rounds: 2) { RoundOfLooks = 500, Tuning = Hasty }, p => answers.Add(p.Best));
        Assert.NotEmpty(answers);
        foreach (var answer in answers)
        {
            FairCheck.Demand(job, answer);
            Assert.Empty(NestCheck.Faults(job, answer));
            Assert.DoesNotContain(answer.Left, l => l.Why.Code == UnfitCode.NotExact);
        }
    }, iter: 60);

    [Fact]
    public void Equal_seeds_and_rounds_give_equal_answers()
    {
        var job = new NestJob(
            [new NestSheet("s", 150, 150, NoBorders, 3)],
            [new NestPiece("a", Star([30, 14, 30, 14, 30, 14], 0), 9), new NestPiece("b", Rounded([20, 26, 18, 22], 1), 8) { Turns = Turns.Free }], 1);
        NestResult Run(int seed) => Nest(job, new NestEffort(TimeSpan.FromMinutes(5), seed, Rounds: 3) { RoundOfLooks = 30_000 });
        Assert.Equal(Places(Run(1)), Places(Run(1)));
        Assert.NotEqual(Places(Run(1)), Places(Run(2)));

        static string Places(NestResult r) => string.Join(';', r.Sheets.Select(s => s.Sheet + s.Number + string.Join(',', s.Placements.Select(p => $"{p.Id}{p.Copy}{p.Place}"))));
    }

    [Fact]
    public void More_work_finds_a_better_answer()
    {
        // Ten right-angled triangles fill five squares of 50 mm; with some room to spare they go on one sheet.
        var job = new NestJob(
            [new NestSheet("s", 108, 160, NoBorders, 10)],
            [new NestPiece("t", Path.Polyline([new(0, 0), new(50, 0), new(0, 50)], true), 12)], 0);
        var answers = new List<NestResult>();
        using var found = CancellationTokenSource.CreateLinkedTokenSource(TestContext.Current.CancellationToken);
        Nester.Nest(job, new NestEffort(TimeSpan.FromMinutes(2), Rounds: 12) { RoundOfLooks = 100_000 }, Take, found.Token);
        Assert.True(answers.Count > 1);
        Assert.Single(answers[^1].Sheets);
        FairCheck.Demand(job, answers[^1]);

        void Take(NestProgress progress)
        {
            answers.Add(progress.Best);
            if (progress.Best.Sheets.Length == 1) found.Cancel();
        }
    }

    [Fact]
    public void Small_pieces_lie_in_the_openings_of_large_ones()
    {
        var job = new NestJob(
            [new NestSheet("s", 100, 100, NoBorders, 5)],
            [
                new NestPiece("frame", Path.Rectangle(0, 0, 100, 100), 1) { Openings = [Path.Rectangle(10, 10, 80, 80)] },
                new NestPiece("inside", Path.Rectangle(0, 0, 36, 36), 4),
            ], 2);
        var result = Nest(job, new NestEffort(TimeSpan.FromMinutes(1), Rounds: 6) { RoundOfLooks = 50_000 });
        Assert.Equal(5, Assert.Single(result.Sheets).Placements.Length);
        FairCheck.Demand(job, result);
    }

    [Fact]
    public void Pins_keep_their_place_and_the_others_keep_off()
    {
        var pinned = Affine.Turn(30).Then(Affine.Move(60, 40));
        var job = new NestJob(
            [new NestSheet("s", 120, 120, new Borders(4, 4, 4, 4), 2)],
            [new NestPiece("a", Path.Rectangle(0, 0, 40, 20), 6) { Turns = Turns.None }, new NestPiece("b", Star([25, 10, 25, 10], 0), 3)], 1.5)
        { Pins = [new NestPin("a", 2, "s", 2, pinned)] };
        var result = Nest(job, new NestEffort(TimeSpan.FromMinutes(1), Rounds: 3) { RoundOfLooks = 20_000 });
        Assert.Equal(pinned, result.Sheets.Single(s => s.Number == 2).Placements.Single(p => p is { Id: "a", Copy: 2 }).Place);
        FairCheck.Demand(job, result);
    }

    [Fact]
    public void Pieces_that_belong_together_lie_on_one_sheet()
    {
        var job = new NestJob(
            [new NestSheet("s", 100, 100, NoBorders, 6)],
            [
                new NestPiece("big", Path.Rectangle(0, 0, 80, 60), 3),
                new NestPiece("one", Path.Rectangle(0, 0, 45, 30), 1) { Together = "ends" },
                new NestPiece("two", Path.Rectangle(0, 0, 50, 35), 2) { Together = "ends" },
            ], 1);
        var result = Nest(job, new NestEffort(TimeSpan.FromMinutes(1), Rounds: 4) { RoundOfLooks = 20_000 });
        Assert.Empty(result.Left);
        Assert.Single(result.Sheets, s => s.Placements.Any(p => p.Id is "one" or "two"));
        FairCheck.Demand(job, result);
    }

    [Fact]
    public void An_offcut_is_used_before_a_new_sheet_where_that_saves_one()
    {
        var job = new NestJob(
            [
                new NestSheet("new", 200, 200, NoBorders, 5),
                new NestSheet("rest", 90, 90, NoBorders, 1) { IsOffcut = true, Outline = Path.Polyline([new(0, 0), new(90, 0), new(90, 50), new(0, 90)], true) },
            ],
            [new NestPiece("p", Path.Rectangle(0, 0, 40, 40), 2)], 1);
        Assert.Equal("rest", Assert.Single(Nest(job, NestEffort.FirstAnswer).Sheets).Sheet);
    }

    [Fact]
    public void A_piece_too_large_says_by_how_much_and_whether_turning_would_help()
    {
        NestResult Try(NestPiece piece) => Nest(new NestJob([new NestSheet("A5 sheet", 148, 210, new Borders(4, 4, 4, 4), 3), new NestSheet("A3 sheet", 297, 420, NoBorders, 0)], [piece], 0), NestEffort.FirstAnswer);
        Assert.Equal(
            new Oversize(150, 220, 18, "A5 sheet", 140, 202, LackingSheet: "A3 sheet"),
            Assert.Single(Try(new NestPiece("p", Path.Rectangle(0, 0, 150, 220), 2)).Left).Why.Oversize);
        var turned = Assert.Single(Try(new NestPiece("p", Path.Rectangle(0, 0, 200, 120), 1) { Turns = Turns.Half }).Left).Why;
        Assert.Equal((UnfitCode.TooLarge, 90, "A5 sheet", "A3 sheet"), (turned.Code, turned.Oversize!.TurnDegrees, turned.Oversize.TurnedSheet, turned.Oversize.LackingSheet));
        Assert.Empty(Try(new NestPiece("p", Path.Rectangle(0, 0, 200, 120), 1)).Left);
    }

    [Fact]
    public void The_exact_check_finds_what_is_wrong()
    {
        var sheet = new NestSheet("s", 100, 100, new Borders(5, 5, 5, 5), 1) { Blocked = [Path.Rectangle(80, 80, 20, 20)] };
        var piece = new NestPiece("p", Path.Rectangle(0, 0, 20, 20), 2) { Turns = Turns.None };
        NestFaultKind? Fault(double spacing, params Affine[] places) => NestCheck.Faults(
            new NestJob([sheet], [piece], spacing),
            new NestResult([new NestedSheet("s", 1, [.. places.Select((p, i) => new NestPlacement("p", i + 1, p, p.B == 0 ? 0 : 90, false))])], [])).FirstOrDefault()?.Kind;
        Assert.Null(Fault(2, Affine.Move(5, 5), Affine.Move(27, 5)));
        Assert.Null(Fault(0, Affine.Move(5, 5), Affine.Move(25, 5)));
        Assert.Equal(NestFaultKind.TooNear, Fault(2, Affine.Move(5, 5), Affine.Move(26.9, 5)));
        Assert.Equal(NestFaultKind.Overlaps, Fault(2, Affine.Move(5, 5), Affine.Move(24.9, 5)));
        Assert.Equal(NestFaultKind.Overlaps, Fault(0, Affine.Move(5, 5), Affine.Move(5, 5)));
        Assert.Equal(NestFaultKind.OverBorder, Fault(0, Affine.Move(4.9, 5)));
        Assert.Equal(NestFaultKind.OnBlocked, Fault(0, Affine.Move(70, 70)));
        Assert.Equal(NestFaultKind.Turned, Fault(0, Affine.Turn(90).Then(Affine.Move(50, 5))));
    }

    private static NestResult Nest(NestJob job, NestEffort effort, Action<NestProgress>? onBetter = null) =>
        Nester.Nest(job, effort, onBetter, TestContext.Current.CancellationToken);

    private static Path Star(double[] radii, double start) => Path.Polyline(Corners(radii, start), closed: true);

    /// <summary>Curves from corner to corner that bulge outwards and inwards by turns.</summary>
    private static Path Rounded(double[] radii, double start)
    {
        var corners = Corners(radii, start).ToList();
        var segments = corners.Select((from, i) =>
        {
            var to = corners[(i + 1) % corners.Count];
            var off = new Point(to.Y - from.Y, from.X - to.X) * (i % 2 == 0 ? 0.25 : -0.05);
            return Segment.Cubic(Point.Lerp(from, to, 0.3) + off, Point.Lerp(from, to, 0.7) + off, to);
        });
        return new Path(corners[0], [.. segments], closed: true);
    }

    private static IEnumerable<Point> Corners(double[] radii, double start) => radii.Select((r, i) =>
    {
        var (sin, cos) = Math.SinCos(start + 2 * Math.PI * i / radii.Length);
        return new Point(r * cos, r * sin);
    });
}
