using System.Globalization;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Projects;

namespace Falzkunst.Web.Wording;

/// <summary>What is unusual about settings, in a sentence with the number that would be more likely.</summary>
public static class DoubtWords
{
    public static string For(SettingsDoubt doubt, Stock stock, Units units)
    {
        var likely = doubt.Likely.ToString("0.##", CultureInfo.InvariantCulture);
        return doubt.Code switch
        {
            SettingsWarning.BladeFarOut => $"So far out the blade cuts the mat: {stock.Name} is {Length.ShowFine(stock.ThicknessMm, units)} thick; {Length.ShowFine(doubt.Likely, units)} is likely.",
            SettingsWarning.BladeTooShort => $"The blade does not reach through: {stock.Name} is {Length.ShowFine(stock.ThicknessMm, units)} thick; {Length.ShowFine(doubt.Likely, units)} is likely.",
            SettingsWarning.ForceHigh => $"That is far more force than such paper takes; {likely} g is careful.",
            SettingsWarning.HeatUnusual => $"Foil seldom takes at that heat; {likely} °C is usual.",
            SettingsWarning.SpeedHigh => $"So fast corners round off; {likely} mm/s is careful.",
            SettingsWarning.TimesMany => $"So often in one place cuts through; {likely} times is usual.",
            SettingsWarning.NotSuited => $"{stock.Name} is noted as not for this; what it suits stands on its sheet.",
            _ => throw new ArgumentOutOfRangeException(nameof(doubt)),
        };
    }
}
