using Falzkunst.Core.Budgets;

namespace Falzkunst.Core.Pictures;

/// <summary>The ways to lay a picture without touching its dots.</summary>
public enum Orientation
{
    MirrorAcross,
    MirrorDown,
    HalfTurn,
    QuarterRight,
    QuarterLeft,

    /// <summary>Rows become columns.</summary>
    Transposed,

    /// <summary>Rows become columns, both from the other end.</summary>
    Transversed,
}

public static class Orientations
{
    /// <summary>The picture laid another way.</summary>
    public static PixelImage Mapped(this PixelImage image, Orientation way)
    {
        var swaps = way is Orientation.QuarterRight or Orientation.QuarterLeft or Orientation.Transposed or Orientation.Transversed;
        var (width, height) = swaps ? (image.Height, image.Width) : (image.Width, image.Height);
        var made = new byte[image.Rgba.Length];
        Parallel.For(0, height, OnAllCores.OfCaller, y =>
        {
            var to = y * width * PixelImage.BytesEach;
            for (var x = 0; x < width; x++, to += PixelImage.BytesEach)
            {
                var (fromX, fromY) = way switch
                {
                    Orientation.MirrorAcross => (width - 1 - x, y),
                    Orientation.MirrorDown => (x, height - 1 - y),
                    Orientation.HalfTurn => (width - 1 - x, height - 1 - y),
                    Orientation.QuarterRight => (y, width - 1 - x),
                    Orientation.QuarterLeft => (height - 1 - y, x),
                    Orientation.Transposed => (y, x),
                    _ => (height - 1 - y, width - 1 - x),
                };
                Buffer.BlockCopy(image.Rgba, image.At(fromX, fromY), made, to, PixelImage.BytesEach);
            }
        });
        return new PixelImage(width, height, made);
    }
}
