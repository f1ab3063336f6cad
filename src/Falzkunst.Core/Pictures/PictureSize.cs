namespace Falzkunst.Core.Pictures;

/// <summary>How large a picture is after its steps, found without its dots.</summary>
public static class PictureSize
{
    /// <summary>Dots across and down.</summary>
    public static (int Width, int Height) After(int width, int height, IEnumerable<PictureStep> steps) =>
        steps.Aggregate((width, height), (size, step) => After(size.width, size.height, step));

    private static (int Width, int Height) After(int width, int height, PictureStep step)
    {
        switch (step)
        {
            case Crop crop:
                var at = Cropping.Part(width, height, crop);
                return (at.Width, at.Height);
            case Lay { Way: Orientation.QuarterLeft or Orientation.QuarterRight or Orientation.Transposed or Orientation.Transversed }:
                return (height, width);
            case Straighten turn:
                return Warping.TurnedSize(width, height, turn.Degrees);
            case Unfold page:
                return Warping.UnfoldedSize(width, height, page);
            default:
                return (width, height);
        }
    }
}
