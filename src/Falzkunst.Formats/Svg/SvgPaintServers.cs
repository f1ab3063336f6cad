using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Svg;

/// <summary>Gradients by id: what they are, and the middle colour that stands for them where one colour is wanted.</summary>
internal sealed class SvgPaintServers(IReadOnlyDictionary<string, SvgNode> byId, SvgCascade styles)
{
    private const int MostHops = 16;
    private static readonly string[] Names = ["x1", "y1", "x2", "y2", "cx", "cy", "r", "fx", "fy"];
    private readonly Dictionary<string, (SvgPaint? Middle, SvgGradient? Whole)> _known = new(StringComparer.Ordinal);

    /// <summary>The mean colour of a gradient's stops; null where the reference is no gradient of this file.</summary>
    public SvgPaint? ColourOf(string reference) => reference.StartsWith('#') ? Find(reference[1..]).Middle : null;

    /// <summary>The gradient of an id; null where there is none, or it is of one colour.</summary>
    public SvgGradient? GradientOf(string id) => Find(id).Whole;

    /// <summary>The id is that of a pattern.</summary>
    public bool IsPattern(string id) => byId.TryGetValue(id, out var node) && node.Name == "pattern";

    private (SvgPaint? Middle, SvgGradient? Whole) Find(string id)
    {
        if (!_known.TryGetValue(id, out var known)) _known[id] = known = Follow(id);
        return known;
    }

    private (SvgPaint?, SvgGradient?) Follow(string id)
    {
        if (!byId.TryGetValue(id, out var first)) return (null, null);
        var numbers = new Dictionary<string, string>(StringComparer.Ordinal);
        string? units = null, map = null;
        var node = first;
        // What one does not say itself it takes from the one that it refers to.
        for (var hop = 0; hop < MostHops && node.Name is "linearGradient" or "radialGradient"; hop++)
        {
            foreach (var name in Names) if (node[name] is { } number) numbers.TryAdd(name, number);
            units ??= node["gradientUnits"];
            map ??= node["gradientTransform"];
            var stops = node.Children.Where(c => c.Name == "stop").Take(Shading.MostStops + 1).Select(s => (Node: s, Colour: StopColour(s))).Where(s => s.Colour is not null).Select(s => (s.Node, Colour: s.Colour!.Value)).ToList();
            if (stops.Count > 0)
            {
                var kind = first.Name == "linearGradient" ? ShadingKind.Linear : ShadingKind.Radial;
                var isOne = stops.Count is 1 or > Shading.MostStops || SvgTransform.Read(map) is null;
                return (Mean([.. stops.Select(s => s.Colour)]) with { Server = id }, isOne ? null : new SvgGradient(kind, Ordered(stops), units != "userSpaceOnUse", SvgTransform.Read(map)!.Value, numbers));
            }
            if (node.Reference is not { } next || !byId.TryGetValue(next, out var other)) return (SvgPaint.None, null);
            node = other;
        }
        return (null, null);
    }

    /// <summary>Stops from 0 to 1 without going back; what shines through is as on white paper.</summary>
    private static ImmutableArray<ShadingStop> Ordered(List<(SvgNode Node, (string Colour, double Opacity) Colour)> stops)
    {
        var at = 0.0;
        var ordered = ImmutableArray.CreateBuilder<ShadingStop>(stops.Count);
        foreach (var (node, (colour, opacity)) in stops)
        {
            at = Math.Max(at, Math.Clamp(SvgLength.Read(node["offset"], 1) ?? 0, 0, 1));
            string Channel(int from) => ((int)Math.Round(255 + (Hex(colour, from) - 255) * opacity)).ToString("X2", CultureInfo.InvariantCulture);
            ordered.Add(new ShadingStop(at, $"#{Channel(1)}{Channel(3)}{Channel(5)}"));
        }
        return ordered.MoveToImmutable();
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

    private static int Hex(string colour, int at) => int.Parse(colour.AsSpan(at, 2), NumberStyles.HexNumber, CultureInfo.InvariantCulture);

    private static SvgPaint Mean(List<(string Colour, double Opacity)> stops)
    {
        int Channel(int at) => (int)Math.Round(stops.Average(s => Hex(s.Colour, at)));
        return new SvgPaint($"#{Channel(1):X2}{Channel(3):X2}{Channel(5):X2}", stops.Average(s => s.Opacity));
    }
}
