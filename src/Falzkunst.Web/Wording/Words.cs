using System.Globalization;

namespace Falzkunst.Web.Wording;

/// <summary>Numbers and times for people.</summary>
public static class Words
{
    /// <summary>A duration: "42 s", "4 min 02", "1 h 09 min".</summary>
    public static string Duration(double seconds)
    {
        var s = (long)Math.Round(seconds);
        return s < 60 ? $"{s} s" : s < 3600 ? $"{s / 60} min {s % 60:00}" : $"{s / 3600} h {s % 3600 / 60:00} min";
    }

    /// <summary>A duration as a clock shows it: "3:05".</summary>
    public static string Clock(double seconds)
    {
        var s = (long)Math.Round(seconds);
        return s < 3600 ? $"{s / 60}:{s % 60:00}" : $"{s / 3600}:{s % 3600 / 60:00}:{s % 60:00}";
    }

    /// <summary>"1 piece", "3 pieces".</summary>
    public static string Count(long count, string one, string? many = null) =>
        string.Create(CultureInfo.InvariantCulture, $"{count:N0} {(count == 1 ? one : many ?? one + "s")}");

    /// <summary>The text with a capital letter, hyphens as spaces.</summary>
    public static string Capital(string text) => text.Replace('-', ' ').Trim() is { Length: > 0 } words ? char.ToUpperInvariant(words[0]) + words[1..] : text;

    /// <summary>A moment: the time today, else the date.</summary>
    public static string Moment(DateTimeOffset at, DateTimeOffset now)
    {
        var local = at.ToLocalTime();
        return local.Date == now.ToLocalTime().Date
            ? local.ToString("HH:mm", CultureInfo.InvariantCulture)
            : local.ToString("d MMM HH:mm", CultureInfo.InvariantCulture);
    }

    /// <summary>The time of day of a moment today, the day of any other.</summary>
    public static string Day(DateTimeOffset at, DateTimeOffset now) =>
        at.ToLocalTime().Date == now.ToLocalTime().Date ? Moment(at, now) : at.ToLocalTime().ToString("d MMM", CultureInfo.InvariantCulture);

    /// <summary>A file's size: "12 kB".</summary>
    public static string Bytes(long bytes) => bytes < 1_000_000
        ? $"{Math.Max(1, bytes / 1000)} kB"
        : string.Create(CultureInfo.InvariantCulture, $"{bytes / 1e6:0.0} MB");
}
