using System.Globalization;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Printing.Registration;

namespace Falzkunst.Web.Wording;

/// <summary>What was read of registration marks, in words.</summary>
public static class MarkWords
{
    /// <summary>A corner of a page.</summary>
    public static string Corner(MarkCorner corner) => corner switch
    {
        MarkCorner.TopLeft => "upper left",
        MarkCorner.TopRight => "upper right",
        MarkCorner.BottomLeft => "lower left",
        _ => "lower right",
    };

    /// <summary>Why marks are not taken for read, and what to do about it.</summary>
    public static (string What, string Remedy) Refusal(MarkRefusal refused)
    {
        var mark = refused.Mark is { } corner ? $"the {Corner(corner)} mark" : "the marks";
        return refused.Why switch
        {
            MarkTrouble.Missing when refused.Mark is null => ("No marks are seen", "Is this the printed side of this page, and is all of it in the picture?"),
            MarkTrouble.Missing => ($"{Capital(mark)} is missing", "It is covered, out of the picture, or was not printed."),
            MarkTrouble.Covered => ($"A part of {mark} is covered", "Brush the page clean, look whether the whole mark was printed, and lay it anew."),
            MarkTrouble.Mirrored => ($"{Capital(mark)} faces the wrong way", "The page is mirrored, or another one."),
            MarkTrouble.Decoy => ($"Two shapes look like {mark}", "Cover the one that is no mark, or print the page without it."),
            MarkTrouble.OtherLayout => ($"{Capital(mark)} stands otherwise than on this page", "Another page, another scale in the printer's dialogue, or printed before the marks were changed. Print it anew at 100 %."),
            _ => ($"{Capital(mark)} does not agree with the others", "The page is creased or slipped in the printer. Flatten it, or print it anew."),
        };
    }

    /// <summary>The same in one text.</summary>
    public static string Sentence(MarkRefusal refused)
    {
        var (what, remedy) = Refusal(refused);
        return $"{what}. {remedy}";
    }

    /// <summary>Where a page lies and how it came out of the printer.</summary>
    public static string Faults(Affine lies, Point middle, Units units)
    {
        var faults = PageFaults.Of(lies);
        var off = lies.Apply(middle) - middle;
        var half = Math.Abs(faults.TurnDegrees) > 90;
        var turn = half ? faults.TurnDegrees - Math.Sign(faults.TurnDegrees) * 180 : faults.TurnDegrees;
        return string.Create(CultureInfo.InvariantCulture,
            $"{(half ? "upside down, " : "")}{Length.Show(Math.Abs(off.X), units)} {(off.X < 0 ? "left" : "right")}, {Length.Show(Math.Abs(off.Y), units)} {(off.Y < 0 ? "up" : "down")}, turned {turn:0.00}°, {Scale(faults)}");
    }

    /// <summary>Scale along both edges, and skew where there is any.</summary>
    public static string Scale(PageFaults faults) => string.Create(CultureInfo.InvariantCulture,
        $"scale {faults.ScaleX * 100:0.00} × {faults.ScaleY * 100:0.00} %{(Math.Abs(faults.SkewDegrees) >= 0.005 ? $", skew {faults.SkewDegrees:0.00}°" : "")}");

    /// <summary>A distance of cut and print: hundredths of a millimetre, whatever the project's units are.</summary>
    public static string Apart(double mm) => string.Create(CultureInfo.InvariantCulture, $"{mm:0.00} mm");

    /// <summary>Whether bleed hides what remains.</summary>
    public static string Hidden(double remainsMm, double bleedMm, Units units) =>
        bleedMm <= 0 ? "No bleed hides it: white or print may show at the edge." : remainsMm <= bleedMm ? $"{Length.Show(bleedMm, units)} of bleed hide it." : $"More than the {Length.Show(bleedMm, units)} of bleed hide: white may show at the edge.";

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];
}
