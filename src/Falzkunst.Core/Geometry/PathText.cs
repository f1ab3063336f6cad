using System.Buffers.Text;
using System.Collections.Immutable;
using System.Globalization;
using System.Text;

namespace Falzkunst.Core.Geometry;

/// <summary>
/// Paths as text in the absolute M, L, C, Z subset of SVG path data. Numbers are written in the shortest form that reads
/// back to the same bits, so that text and value are equivalent.
/// </summary>
public static class PathText
{
    public static string Write(Path path) => Write(path, static (text, number) => text.Append(number.ToString("R", CultureInfo.InvariantCulture)));

    /// <summary>The same with numbers rounded to <paramref name="decimals"/> places, for files meant for others.</summary>
    public static string Write(Path path, int decimals)
    {
        var format = "0." + new string('#', decimals);
        return Write(path, (text, number) =>
        {
            var written = number.ToString(format, CultureInfo.InvariantCulture);
            text.Append(written == "-0" ? "0" : written);
        });
    }

    private static string Write(Path path, Action<StringBuilder, double> number)
    {
        var text = new StringBuilder(16 + path.Segments.Length * 24);
        void Put(char command, Point p)
        {
            text.Append(command);
            number(text, p.X);
            text.Append(' ');
            number(text, p.Y);
        }
        Put('M', path.Start);
        foreach (var s in path.Segments)
        {
            if (s.IsCubic)
            {
                Put('C', s.Handle1);
                Put(' ', s.Handle2);
                Put(' ', s.End);
            }
            else
            {
                Put('L', s.End);
            }
        }
        if (path.IsClosed) text.Append('Z');
        return text.ToString();
    }

    /// <summary>Reads what <see cref="Write(Path)"/> wrote.</summary>
    /// <exception cref="FormatException">The text is not one path in that subset.</exception>
    public static Path Read(string text)
    {
        var bytes = Encoding.ASCII.GetBytes(text);
        var at = 0;
        if (bytes.Length == 0 || bytes[at++] != (byte)'M') throw new FormatException("A stored path begins with M.");
        var start = ReadPoint(bytes, ref at);
        var segments = ImmutableArray.CreateBuilder<Segment>();
        var closed = false;
        while (at < bytes.Length)
        {
            switch (bytes[at++])
            {
                case (byte)'L':
                    segments.Add(Segment.Straight(ReadPoint(bytes, ref at)));
                    break;
                case (byte)'C':
                    segments.Add(Segment.Cubic(ReadPoint(bytes, ref at), ReadPoint(bytes, ref at), ReadPoint(bytes, ref at)));
                    break;
                case (byte)'Z' when at == bytes.Length:
                    closed = true;
                    break;
                default:
                    throw new FormatException($"A stored path has an unknown command at character {at - 1}.");
            }
        }
        return new Path(start, segments.ToImmutable(), closed);
    }

    private static Point ReadPoint(byte[] bytes, ref int at) => new(ReadNumber(bytes, ref at), ReadNumber(bytes, ref at));

    private static double ReadNumber(byte[] bytes, ref int at)
    {
        if (at < bytes.Length && bytes[at] == (byte)' ') at++;
        if (!Utf8Parser.TryParse(bytes.AsSpan(at), out double value, out var used))
            throw new FormatException($"A stored path lacks a number at character {at}.");
        at += used;
        return value;
    }
}
