using Falzkunst.Core.Designs;

namespace Falzkunst.Formats.Dxf;

/// <summary>What a drawing unit is, from the header.</summary>
internal static class DxfUnits
{
    private const double Inch = 25.4;

    /// <summary>Millimetres to the drawing unit, and whether the file says it; leaves a note where it does not.</summary>
    public static (double Mm, bool IsSaid) Millimetres(DxfFile file, Action<ReadingNote> note)
    {
        if (file.Header.TryGetValue("$INSUNITS", out var units) && Known(units.Integer) is { } known) return (known, true);
        var metric = !file.Header.TryGetValue("$MEASUREMENT", out var measurement) || measurement.Integer == 1;
        note(new ReadingNote("no-units",
            $"The file does not say what its units are; they were taken as {(metric ? "millimetres" : "inches")}. Check the size of a piece.", "header"));
        return (metric ? 1 : Inch, false);
    }

    private static double? Known(int code) => code switch
    {
        1 => Inch,
        2 => 12 * Inch,
        4 => 1,
        5 => 10,
        6 => 1000,
        8 => Inch / 1e6,
        9 => Inch / 1000,
        10 => 36 * Inch,
        13 => 0.001,
        14 => 100,
        _ => null,
    };
}
