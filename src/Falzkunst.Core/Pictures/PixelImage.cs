namespace Falzkunst.Core.Pictures;

/// <summary>A picture in dots of sRGB with transparency, row by row from the top left; colours are not multiplied by it.</summary>
public sealed class PixelImage
{
    /// <summary>Bytes of a dot: red, green, blue, and how opaque it is.</summary>
    public const int BytesEach = 4;

    /// <param name="width">Dots across, at least 1.</param>
    /// <param name="height">Dots down, at least 1.</param>
    /// <param name="rgba">Four bytes a dot. Whoever makes the picture gives them away.</param>
    /// <exception cref="ArgumentException">The bytes are not those of so many dots.</exception>
    public PixelImage(int width, int height, byte[] rgba)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(width, 1);
        ArgumentOutOfRangeException.ThrowIfLessThan(height, 1);
        if (rgba.LongLength != (long)width * height * BytesEach) throw new ArgumentException("Four bytes a dot are needed.", nameof(rgba));
        (Width, Height, Rgba) = (width, height, rgba);
    }

    public int Width { get; }
    public int Height { get; }

    /// <summary>Four bytes a dot; not to be written into once the picture has been handed on.</summary>
    public byte[] Rgba { get; }

    /// <summary>Some dots are not wholly opaque.</summary>
    public bool IsTransparent
    {
        get
        {
            for (var i = 3; i < Rgba.Length; i += BytesEach)
            {
                if (Rgba[i] < 255) return true;
            }
            return false;
        }
    }

    /// <summary>Where the bytes of a dot begin.</summary>
    public int At(int x, int y) => (y * Width + x) * BytesEach;

    /// <summary>How it looks to the eye, whatever its transparency.</summary>
    public OkLab ColourAt(int x, int y) => At(x, y) is var i ? OkLab.From(Rgba[i], Rgba[i + 1], Rgba[i + 2]) : default;

    public PixelImage Copy() => new(Width, Height, [.. Rgba]);
}
