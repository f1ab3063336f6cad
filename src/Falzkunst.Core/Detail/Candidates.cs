using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Detail;

/// <summary>One way to mend a piece, carried out so that it can be looked at.</summary>
/// <param name="How">How.</param>
/// <param name="Result">What comes of it; null where it cannot be done.</param>
/// <param name="Refusal">Why it cannot be done.</param>
public sealed record Candidate(Thicken How, Thickened? Result, EditRefused? Refusal);

/// <summary>Ways to mend a piece, to be compared before one is taken.</summary>
public static class Candidates
{
    /// <summary>Amounts are offered in steps of this, mm.</summary>
    private const double StepMm = 0.05;

    /// <summary>The second amount is at least this much more than what is wanted.</summary>
    private const double More = 1.25;

    /// <summary>The thin parts to a width, to a quarter more, and everything by what its narrowest place lacks.</summary>
    /// <param name="widthMm">The width wanted, mm.</param>
    /// <param name="keptGapMm">Air kept open, mm; 0 lets parts melt together.</param>
    /// <param name="narrowestMm">Width of the narrowest place; null for none that is too narrow.</param>
    public static ImmutableArray<Thicken> Ways(double widthMm, double keptGapMm, double? narrowestMm)
    {
        var lacking = Math.Max(StepMm, RoundUp((widthMm - (narrowestMm ?? widthMm)) / 2));
        return
        [
            new Thicken(false, widthMm, keptGapMm),
            new Thicken(false, RoundUp(widthMm * More), keptGapMm),
            new Thicken(true, lacking, keptGapMm),
        ];
    }

    /// <summary>Carries a way out.</summary>
    /// <param name="piece">The piece.</param>
    /// <param name="how">The way.</param>
    /// <param name="design">Its design, for what lies beside it.</param>
    /// <param name="budget">What ends the work altogether; null for nothing.</param>
    public static Candidate Try(Piece piece, Thicken how, Design design, Budget? budget = null)
    {
        try
        {
            if (how.Refusal is { } refusal) return new Candidate(how, null, refusal);
            return new Candidate(how, Thickening.Grow(piece, how, Neighbours.Rings(piece, design, how.ReachMm), budget), null);
        }
        catch (EditRefused refused)
        {
            return new Candidate(how, null, refused);
        }
    }

    private static double RoundUp(double mm) => Math.Round(Math.Ceiling(mm / StepMm - 1e-6) * StepMm, 2);
}
