using Falzkunst.Core.Budgets;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Pictures;

/// <summary>A picture at one of its steps.</summary>
/// <param name="Now">As it is.</param>
/// <param name="Whole">The same before anything was taken away, which is what brushes give back.</param>
public readonly record struct PictureState(PixelImage Now, PixelImage Whole);

/// <summary>Carries out what was done to a picture.</summary>
public static class PictureSteps
{
    /// <summary>More steps are not kept.</summary>
    public const int Most = 200;

    /// <summary>The picture after its steps.</summary>
    /// <param name="image">As it came; it is left as it is.</param>
    /// <param name="steps">What was done.</param>
    /// <param name="budget">Work and time are drawn from it.</param>
    /// <exception cref="BudgetSpent">It takes longer than it may.</exception>
    public static PixelImage Apply(PixelImage image, IEnumerable<PictureStep> steps, Budget budget) =>
        steps.Aggregate(new PictureState(image, image), (state, step) => After(state, step, budget)).Now;

    /// <summary>The picture after one more step.</summary>
    /// <inheritdoc cref="Apply"/>
    public static PictureState After(PictureState state, PictureStep step, Budget budget)
    {
        var (now, whole) = state;
        budget.Work(now.Rgba.Length / 64);
        budget.Look();
        if (step.IsGeometric || step is LevelLight)
        {
            var moved = Moved(now, step);
            return new(moved, ReferenceEquals(now, whole) ? moved : Moved(whole, step));
        }
        return state with
        {
            Now = step switch
            {
                BackgroundAway away => Background.Away(now, away, budget),
                BackgroundGuessed guess => Background.Guessed(now, guess.Tolerance, budget),
                Brush brush => Brushing.Apply(now, whole, brush),
                _ => throw new ArgumentOutOfRangeException(nameof(step), step, "This step has no meaning."),
            },
        };
    }

    /// <exception cref="EditRefused">A number of the step is out of reach.</exception>
    public static void Check(PictureStep step)
    {
        switch (step)
        {
            case Crop c when !(c is { X: >= 0, Y: >= 0, Width: > 0.001, Height: > 0.001 } && c.X + c.Width <= 1 + 1e-9 && c.Y + c.Height <= 1 + 1e-9):
                throw new EditRefused(Reason.PictureCropped);
            case Straighten s when !(Math.Abs(s.Degrees) <= Straighten.MostDegrees):
                throw EditRefused.Range(Measure.TurnDegrees, -Straighten.MostDegrees, Straighten.MostDegrees, "degrees");
            case Unfold u when !Warping.IsConvex(u):
                throw new EditRefused(Reason.PictureCorners);
            case BackgroundAway b when !(b is { X: >= 0 and <= 1, Y: >= 0 and <= 1, Tolerance: >= BackgroundAway.Least and <= BackgroundAway.Most }):
                throw EditRefused.Range(Measure.ColourTolerance, BackgroundAway.Least * 100, BackgroundAway.Most * 100, "tolerance");
            case BackgroundGuessed g when !(g.Tolerance is >= BackgroundAway.Least and <= BackgroundAway.Most):
                throw EditRefused.Range(Measure.ColourTolerance, BackgroundAway.Least * 100, BackgroundAway.Most * 100, "tolerance");
            case Brush b when !(b.Radius is >= Brush.LeastRadius and <= Brush.MostRadius && b.Points.Length is > 0 and <= Brush.MostPoints && b.Points.All(p => p.IsFinite)):
                throw new EditRefused(Reason.PictureBrush);
        }
    }

    private static PixelImage Moved(PixelImage image, PictureStep step) => step switch
    {
        Crop crop => Cropping.Apply(image, crop),
        Lay lay => image.Mapped(lay.Way),
        Straighten turn => Warping.Turned(image, turn.Degrees),
        Unfold page => Warping.Unfolded(image, page),
        LevelLight => Lighting.Levelled(image),
        _ => image,
    };
}
