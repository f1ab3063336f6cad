using System.Globalization;
using Falzkunst.Core.Detail;

namespace Falzkunst.Web.Pages.Project;

/// <summary>
/// The numbers that the Detail station looks for and mends with. They stand in addresses and headers behind the piece, as in
/// "p3:w0.8,g0.4,s0.3", so that a page opened again shows the same.
/// </summary>
/// <param name="WidthMm">The width wanted; null for what the stock bears.</param>
/// <param name="GapMm">Air kept open, mm; 0 lets parts melt together.</param>
/// <param name="SizeMm">What is smaller is a small thing, mm.</param>
public sealed record DetailSettings(double? WidthMm, double GapMm, double SizeMm)
{
    public static readonly DetailSettings Usual = new(null, Thicken.UsualGapMm, 0.3);

    public static DetailSettings Read(string? key)
    {
        var settings = Usual;
        foreach (var word in (key?.Split(':').ElementAtOrDefault(1) ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries))
        {
            if (!double.TryParse(word.AsSpan(1), NumberStyles.Float, CultureInfo.InvariantCulture, out var mm)) continue;
            settings = word[0] switch
            {
                'w' when mm is >= Thicken.LeastMm and <= Thicken.MostMm => settings with { WidthMm = mm },
                'g' when mm is >= 0 and <= Thicken.MostMm => settings with { GapMm = mm },
                's' when SmallThings.Refusal(mm) is null => settings with { SizeMm = mm },
                _ => settings,
            };
        }
        return settings;
    }

    /// <summary>The settings behind a key; nothing where they are the usual ones.</summary>
    public string Behind(string key)
    {
        if (this == Usual) return key;
        var width = WidthMm is { } w ? string.Create(CultureInfo.InvariantCulture, $"w{w:0.####},") : "";
        return string.Create(CultureInfo.InvariantCulture, $"{key}:{width}g{GapMm:0.####},s{SizeMm:0.####}");
    }
}
