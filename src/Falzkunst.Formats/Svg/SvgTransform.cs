using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Svg;

/// <summary>The transform attribute.</summary>
internal static class SvgTransform
{
    /// <summary>The map, or null where the text is not understood.</summary>
    public static Affine? Read(string? text)
    {
        if (string.IsNullOrWhiteSpace(text) || text.Trim() == "none") return Affine.Identity;
        var map = Affine.Identity;
        var rest = text.AsSpan();
        while (true)
        {
            rest = rest.TrimStart(" \t\r\n,");
            if (rest.IsEmpty) return map;
            var open = rest.IndexOf('(');
            var close = rest.IndexOf(')');
            if (open < 0 || close < open) return null;
            if (One(rest[..open].Trim(), rest[(open + 1)..close]) is not { } one) return null;
            map = one.Then(map);
            rest = rest[(close + 1)..];
        }
    }

    private static Affine? One(ReadOnlySpan<char> name, ReadOnlySpan<char> arguments)
    {
        Span<double> n = stackalloc double[6];
        var count = 0;
        var scanner = new NumberScanner(arguments);
        while (!scanner.AtEnd)
        {
            if (count == 6 || !scanner.TryNumber(out n[count++])) return null;
            // Units of the CSS form: pixels and degrees are the units here anyway.
            if (scanner.Peek() is 'p' or 'd')
            {
                while (char.IsLetter(scanner.Peek())) scanner.Skip();
            }
        }
        return (name.ToString(), count) switch
        {
            ("matrix", 6) => new Affine(n[0], n[1], n[2], n[3], n[4], n[5]),
            ("translate", 1) => Affine.Move(n[0], 0),
            ("translate", 2) => Affine.Move(n[0], n[1]),
            ("scale", 1) => Affine.Scale(n[0], n[0]),
            ("scale", 2) => Affine.Scale(n[0], n[1]),
            ("rotate", 1) => Affine.Turn(n[0]),
            ("rotate", 3) => Affine.Move(-n[1], -n[2]).Then(Affine.Turn(n[0])).Then(Affine.Move(n[1], n[2])),
            ("skewX", 1) => new Affine(1, 0, Math.Tan(n[0] * Math.PI / 180), 1, 0, 0),
            ("skewY", 1) => new Affine(1, Math.Tan(n[0] * Math.PI / 180), 0, 1, 0, 0),
            ("translateX", 1) => Affine.Move(n[0], 0),
            ("translateY", 1) => Affine.Move(0, n[0]),
            _ => null,
        };
    }
}
