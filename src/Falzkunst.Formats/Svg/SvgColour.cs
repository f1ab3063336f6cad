using System.Globalization;

namespace Falzkunst.Formats.Svg;

/// <summary>Colours of CSS as #rrggbb with an opacity.</summary>
internal static class SvgColour
{
    /// <summary>The colour and its opacity 0 to 1; null where the text is no colour known here.</summary>
    public static (string Colour, double Opacity)? Read(string text)
    {
        text = text.Trim();
        if (text.StartsWith('#')) return Hex(text.AsSpan(1));
        if (text.Equals("transparent", StringComparison.OrdinalIgnoreCase)) return ("#000000", 0);
        var open = text.IndexOf('(', StringComparison.Ordinal);
        if (open > 0 && text.EndsWith(')')) return Function(text[..open].Trim().ToLowerInvariant(), text[(open + 1)..^1]);
        if (text.Any(c => !char.IsAsciiLetter(c))) return null;
        var named = System.Drawing.Color.FromName(text.Replace("grey", "gray", StringComparison.OrdinalIgnoreCase));
        if (!named.IsKnownColor || named.IsSystemColor)
            return text.Equals("rebeccapurple", StringComparison.OrdinalIgnoreCase) ? ("#663399", 1) : null;
        return (Write(named.R, named.G, named.B), 1);
    }

    private static (string, double)? Hex(ReadOnlySpan<char> hex)
    {
        if (hex.Length is not (3 or 4 or 6 or 8) || !uint.TryParse(hex, NumberStyles.AllowHexSpecifier, CultureInfo.InvariantCulture, out var value)) return null;
        return hex.Length switch
        {
            3 => (Write((value >> 8 & 15) * 17, (value >> 4 & 15) * 17, (value & 15) * 17), 1),
            4 => (Write((value >> 12 & 15) * 17, (value >> 8 & 15) * 17, (value >> 4 & 15) * 17), (value & 15) / 15.0),
            6 => (Write(value >> 16 & 255, value >> 8 & 255, value & 255), 1),
            _ => (Write(value >> 24 & 255, value >> 16 & 255, value >> 8 & 255), (value & 255) / 255.0),
        };
    }

    private static (string, double)? Function(string name, string arguments)
    {
        var parts = arguments.Split([',', ' ', '/'], StringSplitOptions.RemoveEmptyEntries);
        if (parts.Length is not (3 or 4)) return null;
        var opacity = 1.0;
        if (parts.Length == 4 && !TryPart(parts[3], 1, out opacity)) return null;
        opacity = Math.Clamp(opacity, 0, 1);
        if (name is "rgb" or "rgba")
        {
            if (!TryPart(parts[0], 255, out var r) || !TryPart(parts[1], 255, out var g) || !TryPart(parts[2], 255, out var b)) return null;
            return (Write(r, g, b), opacity);
        }
        if (name is "hsl" or "hsla")
        {
            if (!TryPart(parts[0].Replace("deg", "", StringComparison.Ordinal), 360, out var h) || !TryPart(parts[1], 1, out var s) || !TryPart(parts[2], 1, out var l)) return null;
            double Channel(double n)
            {
                var k = (n + (h % 360 + 360) % 360 / 30) % 12;
                return 255 * (l - s * Math.Min(l, 1 - l) * Math.Max(-1, Math.Min(Math.Min(k - 3, 9 - k), 1)));
            }
            return (Write(Channel(0), Channel(8), Channel(4)), opacity);
        }
        return null;
    }

    private static bool TryPart(string text, double whole, out double value)
    {
        var percent = text.EndsWith('%');
        if (!double.TryParse(percent ? text.AsSpan()[..^1] : text, NumberStyles.Float, CultureInfo.InvariantCulture, out value)) return false;
        if (percent) value *= whole / 100;
        return true;
    }

    private static string Write(double r, double g, double b) =>
        string.Create(CultureInfo.InvariantCulture, $"#{Byte(r):X2}{Byte(g):X2}{Byte(b):X2}");

    private static int Byte(double v) => (int)Math.Clamp(Math.Round(v), 0, 255);
}
