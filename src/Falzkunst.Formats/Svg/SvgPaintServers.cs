using System.Globalization;

namespace Falzkunst.Formats.Svg;

/// <summary>Gradients by id, each answered with its middle colour.</summary>
internal sealed class SvgPaintServers(IReadOnlyDictionary<string, SvgNode> byId, SvgCascade styles)
{
    private const int MostHops = 16;
    private readonly Dictionary<string, SvgPaint?> _known = new(StringComparer.Ordinal);

    /// <summary>The mean colour of a gradient's stops; null where the reference is no gradient of this file.</summary>
    public SvgPaint? ColourOf(string reference)
    {
        if (!reference.StartsWith('#')) return null;
        if (!_known.TryGetValue(reference, out var known)) _known[reference] = known = Follow(reference[1..]);
        return known;
    }

    private SvgPaint? Follow(string id)
    {
        for (var hop = 0; hop < MostHops && byId.TryGetValue(id, out var node) && node.Name is "linearGradient" or "radialGradient"; hop++)
        {
            var stops = node.Children.Where(c => c.Name == "stop").Select(StopColour).OfType<(string Colour, double Opacity)>().ToList();
            if (stops.Count > 0) return Mean(stops);
            if (node.Reference is not { } next) return SvgPaint.None;
            id = next;
        }
        return null;
    }

    private (string Colour, double Opacity)? StopColour(SvgNode stop)
    {
        var colour = stop["stop-color"] ?? "black";
        var opacity = stop["stop-opacity"];
        foreach (var d in styles.Cascade(stop))
        {
            if (d.Name == "stop-color") colour = d.Value;
            if (d.Name == "stop-opacity") opacity = d.Value;
        }
        if (SvgColour.Read(colour) is not { } known) return null;
        return double.TryParse(opacity, NumberStyles.Float, CultureInfo.InvariantCulture, out var share)
            ? (known.Colour, known.Opacity * Math.Clamp(share, 0, 1))
            : known;
    }

    private static SvgPaint Mean(List<(string Colour, double Opacity)> stops)
    {
        int Channel(int at) => (int)Math.Round(stops.Average(s => int.Parse(s.Colour.AsSpan(at, 2), NumberStyles.HexNumber, CultureInfo.InvariantCulture)));
        return new SvgPaint($"#{Channel(1):X2}{Channel(3):X2}{Channel(5):X2}", stops.Average(s => s.Opacity));
    }
}
