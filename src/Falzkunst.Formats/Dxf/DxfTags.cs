using System.Globalization;
using System.Text;
using Falzkunst.Core.Budgets;

namespace Falzkunst.Formats.Dxf;

/// <summary>One pair of lines of a DXF file: a group code and its value.</summary>
internal readonly record struct DxfTag(int Code, string Value, int Line)
{
    public double Number => double.TryParse(Value, NumberStyles.Float, CultureInfo.InvariantCulture, out var n) && double.IsFinite(n) ? n : 0;
    public int Integer => int.TryParse(Value, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var n) ? n : 0;
}

/// <summary>The pairs of a file in order.</summary>
internal static class DxfTags
{
    /// <summary>The file begins with a section or with comments before one; a text file or not.</summary>
    public static bool LooksLikeDxf(ReadOnlySpan<byte> file)
    {
        var head = Encoding.ASCII.GetString(file[..Math.Min(file.Length, 4096)]).TrimStart('?', '\uFEFF', ' ', '\t', '\r', '\n');
        if (head.StartsWith('<')) return false;
        return head.Contains("SECTION", StringComparison.Ordinal) || head.Contains("Binary DXF", StringComparison.Ordinal);
    }

    /// <exception cref="ReadRefused">The file is binary, or no sequence of pairs.</exception>
    /// <exception cref="BudgetSpent">It has more pairs than are read in time.</exception>
    public static List<DxfTag> Read(ReadOnlyMemory<byte> file, Budget budget)
    {
        if (file.Span.IndexOf((byte)0) >= 0)
            throw new ReadRefused("binary-dxf", "This is a binary DXF file. Save the drawing as a text (ASCII) DXF, or as SVG.");
        var tags = new List<DxfTag>();
        using var lines = new System.IO.StringReader(Decode(file.Span));
        for (var line = 1; ; line += 2)
        {
            budget.Work(20);
            var code = lines.ReadLine();
            if (code is null || (code.Length == 0 && lines.Peek() < 0)) return tags;
            var value = lines.ReadLine();
            if (!int.TryParse(code.AsSpan().Trim().TrimStart('\uFEFF'), NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var number) || value is null)
                throw new ReadRefused("damaged-dxf", $"The file is damaged at line {line}: a group code with its value was expected. Save it again from the drawing program.");
            if (number != 999) tags.Add(new DxfTag(number, value.Trim(), line));
        }
    }

    // UTF-8 since 2007; before that a code page, of which only layer names would suffer.
    private static string Decode(ReadOnlySpan<byte> file)
    {
        try
        {
            return new UTF8Encoding(false, throwOnInvalidBytes: true).GetString(file);
        }
        catch (DecoderFallbackException)
        {
            return Encoding.Latin1.GetString(file);
        }
    }
}
