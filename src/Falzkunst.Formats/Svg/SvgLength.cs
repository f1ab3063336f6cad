using System.Globalization;

namespace Falzkunst.Formats.Svg;

/// <summary>Lengths of SVG in user units (CSS pixels, 96 to the inch).</summary>
internal static class SvgLength
{
    public const double MmPerPixel = 25.4 / 96;

    /// <summary>Font size that em and ex refer to outside text.</summary>
    private const double Em = 16;

    private static readonly (string Unit, double Pixels)[] Units =
    [
        ("px", 1), ("mm", 96 / 25.4), ("cm", 960 / 25.4), ("in", 96), ("pt", 96 / 72.0), ("pc", 16),
        ("rem", Em), ("em", Em), ("ex", Em / 2), ("q", 96 / 101.6),
    ];

    /// <summary>Units that mean a size on paper. A point is one; files written in points say so by it.</summary>
    private static readonly string[] Physical = ["mm", "cm", "in", "pt", "pc", "q"];

    /// <summary>The text names a unit of paper; a bare number or pixels mean what the drawing program took them for.</summary>
    public static bool IsPhysical(string? text) => text?.Trim() is { Length: > 0 } length && Array.Exists(Physical, u => length.EndsWith(u, StringComparison.OrdinalIgnoreCase));

    /// <summary>Pixels; a percentage is of <paramref name="whole"/>, em and ex are of <paramref name="em"/>. Null where the text is no length.</summary>
    public static double? Read(string? text, double whole, double em = Em)
    {
        if (text is null) return null;
        var trimmed = text.AsSpan().Trim();
        if (trimmed.Length == 0) return null;
        var factor = 1.0;
        if (trimmed[^1] == '%')
        {
            factor = whole / 100;
            trimmed = trimmed[..^1];
        }
        else
        {
            foreach (var (unit, pixels) in Units)
            {
                if (!trimmed.EndsWith(unit, StringComparison.OrdinalIgnoreCase)) continue;
                factor = unit is "em" or "ex" ? pixels / Em * em : pixels;
                trimmed = trimmed[..^unit.Length];
                break;
            }
        }
        return double.TryParse(trimmed, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) && double.IsFinite(number)
            ? number * factor
            : null;
    }
}
