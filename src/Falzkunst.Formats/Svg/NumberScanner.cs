using System.Globalization;

namespace Falzkunst.Formats.Svg;

/// <summary>Reads SVG's loosely separated numbers ("10-5.5.5e-3") from a text, one after the other.</summary>
internal ref struct NumberScanner(ReadOnlySpan<char> text)
{
    private readonly ReadOnlySpan<char> _text = text;

    public int At { get; private set; } = 0;

    public void SkipSeparators()
    {
        while (At < _text.Length && (_text[At] is ',' || char.IsWhiteSpace(_text[At]))) At++;
    }

    public bool AtEnd
    {
        get
        {
            SkipSeparators();
            return At >= _text.Length;
        }
    }

    /// <summary>The next character after separators, 0 at the end.</summary>
    public char Peek()
    {
        SkipSeparators();
        return At < _text.Length ? _text[At] : '\0';
    }

    public void Skip() => At++;

    public bool TryNumber(out double value)
    {
        SkipSeparators();
        var i = At;
        if (i < _text.Length && _text[i] is ('+' or '-')) i++;
        var digits = i;
        while (i < _text.Length && char.IsAsciiDigit(_text[i])) i++;
        var count = i - digits;
        if (i < _text.Length && _text[i] == '.')
        {
            i++;
            var fraction = i;
            while (i < _text.Length && char.IsAsciiDigit(_text[i])) i++;
            count += i - fraction;
        }
        if (count > 0 && i < _text.Length && _text[i] is ('e' or 'E'))
        {
            var e = i + 1;
            if (e < _text.Length && _text[e] is ('+' or '-')) e++;
            var exponent = e;
            while (e < _text.Length && char.IsAsciiDigit(_text[e])) e++;
            if (e > exponent) i = e;
        }
        value = 0;
        if (count == 0 || !double.TryParse(_text[At..i], NumberStyles.Float, CultureInfo.InvariantCulture, out value) || !double.IsFinite(value)) return false;
        At = i;
        return true;
    }

    /// <summary>A flag of an arc: a single 0 or 1, which may stand against the next number.</summary>
    public bool TryFlag(out bool value)
    {
        value = Peek() == '1';
        if (Peek() is not ('0' or '1')) return false;
        At++;
        return true;
    }
}
