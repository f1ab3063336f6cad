using System.Collections.Immutable;

namespace Falzkunst.Core.Detail;

/// <summary>What was found too narrow about a piece.</summary>
/// <param name="Courses">The places, narrowest first, each with the course of the width through it.</param>
/// <param name="StepMm">It was measured every so many mm along the cuts.</param>
/// <param name="FineMm">It should have been measured that finely.</param>
/// <param name="IsComplete">It could be measured at all; otherwise the piece is too intricate.</param>
public sealed record PieceSurvey(ImmutableArray<WidthCourse> Courses, double StepMm, double FineMm, bool IsComplete)
{
    /// <summary>Places shorter than the step may have been missed.</summary>
    public bool IsCoarse => StepMm > FineMm * 1.001;
}
