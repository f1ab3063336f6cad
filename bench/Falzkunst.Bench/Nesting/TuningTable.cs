using System.Globalization;
using Falzkunst.Core.Nesting;

namespace Falzkunst.Bench.Nesting;

/// <summary>
/// What each number of the search gains: the mean fill of some card jobs and seeds after so many rounds with the number halved,
/// as it is, and doubled. Rounds are looks and not seconds, so that the table comes out the same on any machine.
/// </summary>
public static class TuningTable
{
    private static readonly TimeSpan Never = TimeSpan.FromHours(1);
    private static readonly string[] Jobs = ["gate-folds", "leaves", "grain", "offcuts", "mirrored", "a whole evening"];

    private static readonly (string Name, Func<SearchTuning, double, SearchTuning> With)[] Numbers =
    [
        ("Patience", (t, k) => t with { Patience = (int)(t.Patience * k) }),
        ("Strikes", (t, k) => t with { Strikes = (int)(t.Strikes * k) }),
        ("Restarts", (t, k) => t with { Restarts = (int)(t.Restarts * k) }),
        ("Shrink.FirstStep", (t, k) => t with { Shrink = t.Shrink with { FirstStep = t.Shrink.FirstStep * k } }),
        ("Shrink.MostStep", (t, k) => t with { Shrink = t.Shrink with { MostStep = t.Shrink.MostStep * k } }),
        ("Shrink.LeastStep", (t, k) => t with { Shrink = t.Shrink with { LeastStep = t.Shrink.LeastStep * k } }),
        ("Shrink.StepUp - 1", (t, k) => t with { Shrink = t.Shrink with { StepUp = 1 + (t.Shrink.StepUp - 1) * k } }),
        ("1 - Shrink.StepDown", (t, k) => t with { Shrink = t.Shrink with { StepDown = 1 - (1 - t.Shrink.StepDown) * k } }),
        ("Shrink.BoldStep", (t, k) => t with { Shrink = t.Shrink with { BoldStep = t.Shrink.BoldStep * k } }),
        ("Shrink.BoldPatience", (t, k) => t with { Shrink = t.Shrink with { BoldPatience = (int)(t.Shrink.BoldPatience * k) } }),
        ("Drop.FillGrowth", (t, k) => t with { Drop = t.Drop with { FillGrowth = t.Drop.FillGrowth * k } }),
        ("Drop.WorkShare", (t, k) => t with { Drop = t.Drop with { WorkShare = t.Drop.WorkShare * k } }),
        ("Drop.Chance", (t, k) => t with { Drop = t.Drop with { Chance = t.Drop.Chance * k } }),
        ("Lift.LeastOften", (t, k) => t with { Lift = t.Lift with { LeastOften = t.Lift.LeastOften * k } }),
        ("Lift.GoodSuccess", (t, k) => t with { Lift = t.Lift with { GoodSuccess = t.Lift.GoodSuccess * k } }),
        ("Lift.SuccessShare", (t, k) => t with { Lift = t.Lift with { SuccessShare = t.Lift.SuccessShare * k } }),
        ("Lift.Patience", (t, k) => t with { Lift = t.Lift with { Patience = (int)(t.Lift.Patience * k) } }),
    ];

    public static void Write(int rounds, int seeds)
    {
        var usual = Fill(SearchTuning.Usual, rounds, seeds);
        Console.WriteLine($"| number | halved | as it is | doubled |\n|---|---|---|---|");
        foreach (var (name, with) in Numbers)
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
                $"| {name} | {100 * (Fill(with(SearchTuning.Usual, 0.5), rounds, seeds) - usual):+0.00;-0.00} | {100 * usual:0.00} % | {100 * (Fill(with(SearchTuning.Usual, 2), rounds, seeds) - usual):+0.00;-0.00} |"));
    }

    /// <summary>Mean over jobs and seeds of the pieces' area over the paper used, the last sheet counted as far down as it is used.</summary>
    private static double Fill(SearchTuning tuning, int rounds, int seeds) => CardJobs.All().Where(j => Jobs.Contains(j.Name)).Average(j =>
        Enumerable.Range(1, seeds).Average(seed => CardTable.Fill(j.Job, Nester.Nest(j.Job, new NestEffort(Never, seed, rounds) { Tuning = tuning }))));
}
