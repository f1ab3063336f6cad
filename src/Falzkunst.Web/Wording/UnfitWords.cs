using System.Globalization;
using Falzkunst.Core.Designs;

namespace Falzkunst.Web.Wording;

/// <summary>Why copies of a piece lie on no sheet, in sentences.</summary>
public static class UnfitWords
{
    public static string For(Unfit why) => why.Code switch
    {
        UnfitCode.NoStock => "Its stock is not in the drawer. Give the piece another stock.",
        UnfitCode.NoSheets => "There is no sheet of this stock at hand.",
        UnfitCode.TooLarge => For(why.Oversize!),
        UnfitCode.TogetherTooLarge => "The pieces that must share a sheet with it do not all fit on one.",
        UnfitCode.SheetsUsedUp => why.Sheets == 1 ? "The one sheet at hand is used up." : $"The {why.Sheets} sheets at hand are used up.",
        UnfitCode.NotExact => "Its place did not stand up to the exact check.",
        UnfitCode.NoArea => "It has no area, so that nothing of it can lie on paper. Take it out at Pieces.",
        UnfitCode.Sentence => why.Sentence ?? "",
        _ => throw new ArgumentOutOfRangeException(nameof(why)),
    };

    private static string For(Oversize o)
    {
        var text = string.Create(CultureInfo.InvariantCulture,
            $"It is {o.Width:0.0} × {o.Height:0.0} mm and {o.Over:0.0} mm too large for {o.Sheet}, which leaves {o.UsableWidth:0.0} × {o.UsableHeight:0.0} mm inside its borders.");
        if (o.TurnDegrees is { } turn) text += string.Create(CultureInfo.InvariantCulture, $" Turned by {turn:0}° it would fit {o.TurnedSheet}, but it may not be turned so.");
        return o.LackingSheet is { } lacking ? $"{text} {lacking} would do, but none is at hand." : text;
    }
}
