using System.Globalization;

namespace Falzkunst.Core.Measures;

/// <summary>Plain numbers as people write them: with a point or a comma, a degree or per cent sign behind them.</summary>
public static class Numbers
{
    public static bool TryRead(string? text, out double number)
    {
        number = 0;
        return text is { Length: <= 40 }
            && double.TryParse(text.Trim().TrimEnd('°', '%').Replace(',', '.').Replace('−', '-'), NumberStyles.Float, CultureInfo.InvariantCulture, out number)
            && double.IsFinite(number);
    }

    public static bool TryRead(string? text, out int number) =>
        int.TryParse(text?.Trim().Replace('−', '-'), NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out number);
}
