using System.Globalization;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Printing;

namespace Falzkunst.Web.Wording;

/// <summary>What is said of pages and of print.</summary>
public static class PrintWords
{
    /// <summary>A finding in one line, and what can be done.</summary>
    public static (string Title, string Advice) For(PrintFinding finding, string stock, Design design, Units units)
    {
        var name = finding.Piece is { } id ? design.Find(id)?.Name ?? "" : stock;
        return finding.Fault switch
        {
            PrintFault.FallsShort => ($"{name}: print falls {Length.Show(finding.Mm, units)} short of the cut", "A hair of paper shows there. Let the picture cover its piece, or draw the area past the edge."),
            PrintFault.HangsOver => ($"{name}: print hangs {Length.Show(finding.Mm, units)} over the cut", "It is trimmed there, or the outline follows it."),
            PrintFault.Coarse => ($"{name}: a picture has {finding.Mm.ToString("0", CultureInfo.InvariantCulture)} dots to the inch", $"{CardPicture.LeastDotsPerInch:0} are wanted, or its dots show. Make it smaller, or bring in a finer one."),
            PrintFault.NotForPrinters => ($"{name} is not known to go through a printer", "Say so in the drawer where it does, or print on another stock."),
            PrintFault.SidesApart => ($"{name}: front and back may lie {Length.Show(finding.Mm, units)} apart", "That is more than the bleed hides. Let print go farther past the cut."),
            _ => throw new ArgumentOutOfRangeException(nameof(finding), finding.Fault, "Unknown fault."),
        };
    }

    /// <summary>What a bleed hides.</summary>
    public static string Hides(double bleedMm, Units units) => bleedMm < 0.05
        ? "white shows when the cut is off by a hair" : $"hides a cut that is {Length.Show(Math.Max(0, bleedMm - 0.1), units)} off";

    /// <summary>An area in cm², or in square inches.</summary>
    public static string Area(double mm2, Units units) => units.AreInches()
        ? $"{(mm2 / 645.16).ToString("0.#", CultureInfo.InvariantCulture)} sq in" : $"{(mm2 / 100).ToString("0", CultureInfo.InvariantCulture)} cm²";

    /// <summary>How many sides are printed.</summary>
    public static string Sides(FlipEdge? flip) => flip switch
    {
        null => "one side",
        _ => "both sides",
    };
}
