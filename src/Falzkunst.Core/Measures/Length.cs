using System.Globalization;

namespace Falzkunst.Core.Measures;

/// <summary>What is wrong with a text that should be a length.</summary>
public enum LengthFault
{
    Empty,
    TooLong,
    NotUnderstood,

    /// <summary>A comma before three digits may part thousands, or begin a fraction.</summary>
    EitherComma,
    DividesByZero,
}

/// <summary>Lengths as people write and read them: a unit if wanted, and plain arithmetic, such as <c>8.5in/2 - 3</c>.</summary>
public static class Length
{
    public const double MmPerInch = 25.4;

    /// <summary>How far from a whole eighth of an inch a length may be and still be said as one, inches: less than a blade is wide.</summary>
    private const double EighthsSlack = 0.0015;

    /// <summary>A length for people, in their units.</summary>
    public static string Show(double mm, Units units) => units.AreInches() ? InInches(mm, units, "0.00") + " in" : Millimetres(mm, "0.0") + " mm";

    /// <summary>A short length for people, to a hundredth of a millimetre.</summary>
    public static string ShowFine(double mm, Units units) => units.AreInches() ? InInches(mm, units, "0.000") + " in" : Millimetres(mm, "0.00") + " mm";

    /// <summary>A size for people, in their units.</summary>
    public static string ShowSize(double width, double height, Units units) => units.AreInches()
        ? $"{InInches(width, units, "0.00")} × {InInches(height, units, "0.00")} in"
        : $"{Millimetres(width, "0.0")} × {Millimetres(height, "0.0")} mm";

    /// <summary>
    /// The number alone, as a field shows it: millimetres with two decimals, inches with three, and with more where exactly those
    /// were typed.
    /// </summary>
    public static string InField(double mm, Units units) => units.AreInches()
        ? InInches(mm, units, IsTyped(mm / MmPerInch) ? "0.####" : "0.###") + " in"
        : Millimetres(mm, IsTyped(mm) ? "0.####" : "0.##") + " mm";

    /// <summary>A number of at most four decimals, which no computation comes to by chance.</summary>
    private static bool IsTyped(double number) => Math.Abs(number - Math.Round(number, 4)) < 1e-8;

    private static string Millimetres(double mm, string format) => mm.ToString(format, CultureInfo.InvariantCulture);

    private static string InInches(double mm, Units units, string format)
    {
        var inches = mm / MmPerInch;
        var eighths = Math.Round(inches * 8);
        return units == Units.InchEighths && Math.Abs(inches - eighths / 8) < EighthsSlack && eighths != 0
            ? Eighths((long)eighths) : inches.ToString(format, CultureInfo.InvariantCulture);
    }

    /// <summary>"5 1/2", "-3/8", "2".</summary>
    private static string Eighths(long eighths)
    {
        var (whole, over) = (Math.Abs(eighths) / 8, Math.Abs(eighths) % 8);
        var fraction = over switch { 0 => "", 4 => "1/2", 2 => "1/4", 6 => "3/4", _ => $"{over}/8" };
        return (eighths < 0 ? "-" : "") + (over == 0 ? $"{whole}" : whole == 0 ? fraction : $"{whole} {fraction}");
    }

    /// <summary>
    /// Reads a length: numbers with mm, cm, in, pt or ″ behind them, "5 1/2", + - * / and brackets. A number without a unit is taken
    /// in <paramref name="units"/>, unless it multiplies or divides a length.
    /// </summary>
    /// <returns>What is wrong with the text; null where it was understood.</returns>
    public static LengthFault? Read(string? text, Units units, out double mm)
    {
        mm = 0;
        if (string.IsNullOrWhiteSpace(text)) return LengthFault.Empty;
        if (text.Length > 100) return LengthFault.TooLong;
        var reader = new Reader(text, units);
        if (!reader.TrySum(out var value) || !reader.AtEnd) return LengthFault.NotUnderstood;
        if (reader.HasEitherComma) return LengthFault.EitherComma;
        mm = value.InMm(units);
        return double.IsFinite(mm) ? null : LengthFault.DividesByZero;
    }

    /// <summary>
    /// What a field that was not touched is posted as: the length as it was, however the field rounds it; else the one that was typed.
    /// </summary>
    public static double Kept(double typedMm, double nowMm, Units units) =>
        Read(InField(nowMm, units), units, out var shown) is null && Math.Abs(shown - typedMm) < 1e-9 ? nowMm : typedMm;

    /// <summary>A number on the way: how much, and whether a unit was named (power 1) or not (power 0).</summary>
    private readonly record struct Value(double Amount, bool HasUnit)
    {
        public double InMm(Units units) => HasUnit || !units.AreInches() ? Amount : Amount * MmPerInch;
    }

    private sealed class Reader(string text, Units units)
    {
        private int _position;
        private int _depth;

        /// <summary>Among the numbers is one such as 1,250, which is two things to two people.</summary>
        public bool HasEitherComma { get; private set; }

        public bool AtEnd
        {
            get
            {
                SkipSpace();
                return _position == text.Length;
            }
        }

        public bool TrySum(out Value value)
        {
            if (!TryProduct(out value)) return false;
            while (Take('+') is var plus && (plus || Take('-')))
            {
                if (!TryProduct(out var next)) return false;
                // Beside a length, a bare number is a length in the units of the field.
                var (a, b) = value.HasUnit || next.HasUnit ? (value.InMm(units), next.InMm(units)) : (value.Amount, next.Amount);
                value = new Value(plus ? a + b : a - b, value.HasUnit || next.HasUnit);
            }
            return true;
        }

        private bool TryProduct(out Value value)
        {
            if (!TryAtom(out value)) return false;
            while (Take('*') is var times && (times || Take('/')))
            {
                if (!TryAtom(out var next)) return false;
                if (next.HasUnit && (value.HasUnit || !times)) return false; // no areas, nothing per length
                value = new Value(times ? value.Amount * next.Amount : value.Amount / next.Amount, value.HasUnit || next.HasUnit);
            }
            return true;
        }

        private bool TryAtom(out Value value)
        {
            value = default;
            if (++_depth > 20) return false;
            try
            {
                if (Take('-'))
                {
                    if (!TryAtom(out value)) return false;
                    value = value with { Amount = -value.Amount };
                    return true;
                }
                if (Take('(')) return TrySum(out value) && Take(')');
                return TryNumber(out value);
            }
            finally
            {
                _depth--;
            }
        }

        private bool TryNumber(out Value value)
        {
            SkipSpace();
            var from = _position;
            while (_position < text.Length && (char.IsAsciiDigit(text[_position]) || text[_position] is '.' or ',')) _position++;
            value = default;
            HasEitherComma |= Numbers.HasEitherComma(text.AsSpan(from, _position - from));
            if (!double.TryParse(text[from.._position].Replace(',', '.'), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var amount))
                return false;
            SkipSpace();
            amount += TakeFraction(amount);
            amount = TakeBareFraction(amount);
            foreach (var (unit, factor) in UnitFactors)
            {
                if (!text.AsSpan(_position).StartsWith(unit, StringComparison.OrdinalIgnoreCase)) continue;
                _position += unit.Length;
                value = new Value(amount * factor, true);
                return _position == text.Length || !char.IsLetter(text[_position]);
            }
            value = new Value(amount, false);
            return true;
        }

        /// <summary>What stands behind a whole number as a fraction of small whole numbers: the 1/2 of "5 1/2"; 0 where nothing does.</summary>
        private double TakeFraction(double whole)
        {
            var from = _position;
            if (whole == Math.Floor(whole) && from > 0 && char.IsWhiteSpace(text[from - 1])
                && Digits() is { } over && Take('/') && Digits() is > 0 and { } under && over < under)
            {
                SkipSpace();
                return (double)over / under;
            }
            _position = from;
            return 0;
        }

        /// <summary>"1/2" with a unit right behind it is that part of the unit; otherwise a line across divides.</summary>
        private double TakeBareFraction(double over)
        {
            var from = _position;
            if (over == Math.Floor(over) && Take('/') && Digits() is > 0 and { } under && Array.Exists(UnitFactors, u => text.AsSpan(_position).TrimStart().StartsWith(u.Unit, StringComparison.OrdinalIgnoreCase)))
            {
                SkipSpace();
                return over / under;
            }
            _position = from;
            return over;
        }

        private int? Digits()
        {
            var from = _position;
            while (_position < text.Length && char.IsAsciiDigit(text[_position])) _position++;
            return int.TryParse(text.AsSpan(from, _position - from), NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : null;
        }

        private bool Take(char c)
        {
            SkipSpace();
            if (_position >= text.Length || (text[_position] != c && !(c == '*' && text[_position] == '×') && !(c == '-' && text[_position] == '−'))) return false;
            _position++;
            return true;
        }

        private void SkipSpace()
        {
            while (_position < text.Length && char.IsWhiteSpace(text[_position])) _position++;
        }

        private static readonly (string Unit, double Factor)[] UnitFactors =
        [
            ("mm", 1), ("cm", 10), ("inches", MmPerInch), ("inch", MmPerInch), ("in", MmPerInch),
            ("″", MmPerInch), ("\"", MmPerInch), ("pt", MmPerInch / 72),
        ];
    }
}
