namespace Falzkunst.Core.Pictures;

/// <summary>A colour in OKLab, in which equal distances look alike (Ottosson 2020): lightness from 0 to 1, green to red, blue to yellow.</summary>
public readonly record struct OkLab(double L, double A, double B)
{
    private static readonly double[] Light = [.. Enumerable.Range(0, 256).Select(c => c / 255.0).Select(c => c <= 0.04045 ? c / 12.92 : Math.Pow((c + 0.055) / 1.055, 2.4))];

    /// <summary>The colour of a dot of sRGB.</summary>
    public static OkLab From(byte red, byte green, byte blue)
    {
        var (r, g, b) = (Light[red], Light[green], Light[blue]);
        var l = Math.Cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
        var m = Math.Cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
        var s = Math.Cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
        return new(
            0.2104542553 * l + 0.7936177850 * m - 0.0040720468 * s,
            1.9779984951 * l - 2.4285922050 * m + 0.4505937099 * s,
            0.0259040371 * l + 0.7827717662 * m - 0.8086757660 * s);
    }

    /// <summary>How far apart two colours are to the eye; black to white is 1.</summary>
    public double DistanceTo(OkLab other) => Math.Sqrt(SquareTo(other));

    /// <summary>The square of <see cref="DistanceTo"/>.</summary>
    public double SquareTo(OkLab other)
    {
        var (l, a, b) = (L - other.L, A - other.A, B - other.B);
        return l * l + a * a + b * b;
    }
}
