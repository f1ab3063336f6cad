using System.Globalization;

namespace Falzkunst.Core.Measures;

/// <summary>Plain numbers as people write them: with a point or a comma, a degree or per cent sign behind them.</summary>
public static class Numbers
{
    /// <summary>One to three digits, a comma and three more: thousands to some, a fraction to others. A nought in front is a fraction's.</summary>
    public static bool HasEitherComma(ReadOnlySpan<char> digits)
    {
        var at = digits.IndexOf(',');
        return at is >= 1 and <= 3 && digits.Length == at + 4 && digits[0] != '0' && digits[(at + 1)..].IndexOfAnyExceptInRange('0', '9') < 0;
    }

    public static bool TryRead(string? text, out double number)
    {
        number = 0;
        return text is { Length: <= 40 } && !HasEitherComma(text.AsSpan().Trim().TrimStart("-−+").TrimEnd("°%"))
            && double.TryParse(text.Trim().TrimEnd('°', '%').Replace(',', '.').Replace('−', '-'), NumberStyles.Float, CultureInfo.InvariantCulture, out number)
            && double.IsFinite(number);
    }

    public static bool TryRead(string? text, out int number) =>
        int.TryParse(text?.Trim().Replace('−', '-'), NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out number);
}
