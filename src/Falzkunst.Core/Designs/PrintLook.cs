using System.Text.Json.Serialization;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>How a printed line is painted: the area that it bounds, a band along it, and a second band over that one.</summary>
/// <param name="Fill">Colour of the area inside closed lines as #rrggbb; null leaves the paper.</param>
/// <param name="Band">What runs along the line; null for nothing.</param>
public sealed record PrintLook(string? Fill, PrintBand? Band)
{
    /// <summary>A second band over the first, such as sleepers across a track; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public PrintBand? Over { get; init; }

    /// <summary>How the fill changes over the area, in the coordinates of the piece; null for one colour. The fill is its middle.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Shading? Shading { get; init; }

    /// <summary>Rings of one shape are filled by the even-odd rule; else by winding.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool EvenOdd { get; init; }

    /// <summary>Printed where nothing says another colour.</summary>
    public const string UsualColour = "#24313A";

    /// <summary>Width of a band where nothing says one, mm.</summary>
    public const double UsualMm = 0.5;

    /// <summary>The bands, the lower first.</summary>
    [JsonIgnore]
    public IEnumerable<PrintBand> Bands => new[] { Band, Over }.OfType<PrintBand>();

    /// <summary>The same on a line that went elsewhere.</summary>
    /// <param name="map">Where it went.</param>
    /// <param name="by">How much wider its bands are.</param>
    public PrintLook Under(Affine map, double by)
    {
        var look = Math.Abs(by - 1) < 1e-9 ? this : this with { Band = Band?.Scaled(by), Over = Over?.Scaled(by) };
        return Shading is null ? look : look with { Shading = Shading.Under(map) };
    }

    /// <summary>How a line is printed: as it is set, else as its file painted it, else in the colours that are known of it.</summary>
    public static PrintLook Of(Line line)
    {
        // A fill that somebody chose is of that colour alone; one that was left as it was keeps its shading.
        if (line.Settings?.Print is { } set) return set with { EvenOdd = line.Painted?.EvenOdd ?? set.EvenOdd, Shading = line.Painted is { } was && was.Fill == set.Fill ? was.Shading : null };
        if (line.Painted is { } painted && (painted.Fill ?? painted.Band?.Colour) is not null) return painted;
        var (stroke, fill) = (line.Look.Stroke, line.Look.Fill);
        if (stroke is null && fill is null) return line.Path.IsClosed && line.Look.IsDrawnHere ? new(UsualColour, null) : new(null, new(UsualColour, UsualMm));
        return new(fill, stroke is null ? null : new(stroke, UsualMm, line.Look.Dashed ? 2 : 0, line.Look.Dashed ? 1.5 : 0));
    }

    /// <summary>How a shape was painted in its file; null where it shows nothing.</summary>
    public static PrintLook? From(Appearance seen)
    {
        var band = seen.Stroke is { } stroke && seen.StrokeWidth > 0
            ? new PrintBand(stroke, Math.Clamp(seen.StrokeWidth, PrintBand.LeastMm, PrintBand.MostMm)) { RoundEnds = seen.LineCap == "round" } : null;
        if (band is not null && seen is { IsDashed: true, Dashes: [var dash, ..] })
            band = band with { DashMm = Math.Max(dash, PrintBand.LeastDashMm), GapMm = Math.Max(seen.Dashes.Length > 1 ? seen.Dashes[1] : dash, PrintBand.LeastDashMm) };
        return band is null && seen.Fill is null ? null : new(seen.Fill, band) { EvenOdd = seen.FillEvenOdd, Shading = seen.Fill is null ? null : seen.Shading };
    }
}

/// <summary>A printed stroke along a line.</summary>
/// <param name="Colour">#rrggbb.</param>
/// <param name="WidthMm">How wide, mm.</param>
/// <param name="DashMm">Length of a dash, mm; 0 for a stroke without gaps.</param>
/// <param name="GapMm">Paper between two dashes, mm.</param>
public sealed record PrintBand(string Colour, double WidthMm, double DashMm = 0, double GapMm = 0)
{
    /// <summary>Ends of the stroke and of its dashes are half circles.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool RoundEnds { get; init; }

    /// <summary>Limits of the width, mm.</summary>
    public const double LeastMm = 0.05, MostMm = 60;

    /// <summary>Dashes and gaps, where there are any, are no shorter and no longer, mm.</summary>
    public const double LeastDashMm = 0.1, MostDashMm = 200;

    internal PrintBand Scaled(double by) => this with { WidthMm = WidthMm * by, DashMm = DashMm * by, GapMm = GapMm * by };

    [JsonIgnore]
    public bool IsDashed => DashMm > 0 && GapMm > 0;
}
