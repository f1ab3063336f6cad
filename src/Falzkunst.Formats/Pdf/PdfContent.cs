using System.Globalization;
using System.Text;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Pdf;

/// <summary>The operators of a content stream (ISO 32000-1, 8 and annex A), in mm with y down.</summary>
internal sealed class PdfContent
{
    /// <summary>Coordinates are written to a ten thousandth of a millimetre.</summary>
    private const string Number = "0.####";

    private readonly StringBuilder _text = new();

    public byte[] Bytes => Encoding.ASCII.GetBytes(_text.ToString());

    public PdfContent Save() => Write("q\n");
    public PdfContent Restore() => Write("Q\n");

    /// <summary>What follows lies under a map.</summary>
    public PdfContent Map(Affine m)
    {
        foreach (var n in new[] { m.A, m.B, m.C, m.D }) _text.Append(n.ToString("0.########", CultureInfo.InvariantCulture)).Append(' ');
        return Numbers(m.E, m.F).Write("cm\n");
    }

    /// <summary>Nothing of what follows is seen outside an area.</summary>
    public PdfContent ClipTo(Region area)
    {
        foreach (var ring in area.Rings) Trace(Path.Polyline(ring, closed: true));
        // Of an area of nothing nothing is seen.
        return Write(area.IsEmpty ? "0 0 0 0 re W n\n" : "W* n\n");
    }

    public PdfContent FillColour(string colour) => Colour(colour, "rg");
    public PdfContent StrokeColour(string colour) => Colour(colour, "RG");

    /// <summary>Pure black, whatever inks the printer has.</summary>
    public PdfContent Black() => Write("0 g 0 G\n");

    public PdfContent Stroking(double widthMm, bool roundEnds) => Numbers(widthMm).Write(roundEnds ? "w 1 J 1 j\n" : "w 0 J 0 j\n");

    public PdfContent Fill(IEnumerable<Path> rings, bool evenOdd)
    {
        foreach (var ring in rings) Trace(ring);
        return Write(evenOdd ? "f*\n" : "f\n");
    }

    /// <summary>Fills an area with a shading of the resources.</summary>
    /// <param name="rings">What bounds the area.</param>
    /// <param name="evenOdd">By the even-odd rule; else by winding.</param>
    /// <param name="place">From the shading's plane to where it is painted.</param>
    /// <param name="name">Its name in the resources.</param>
    public PdfContent Shade(IEnumerable<Path> rings, bool evenOdd, Affine place, string name)
    {
        Save();
        foreach (var ring in rings) Trace(ring);
        return Write(evenOdd ? "W* n\n" : "W n\n").Map(place).Write("/").Write(name).Write(" sh\n").Restore();
    }

    public PdfContent Stroke(IEnumerable<Path> lines)
    {
        foreach (var line in lines) Trace(line);
        return Write("S\n");
    }

    /// <summary>Draws an object of the resources.</summary>
    public PdfContent Draw(string name) => Write("/").Write(name).Write(" Do\n");

    /// <summary>A picture over a box whose upper left corner is at 0, 0: pictures stand upright in a square of 1.</summary>
    public PdfContent DrawPicture(string name, double width, double height) => Save().Map(new Affine(width, 0, 0, -height, 0, height)).Draw(name).Restore();

    public PdfContent BeginLayer(string name) => Write("/OC /").Write(name).Write(" BDC\n");
    public PdfContent EndLayer() => Write("EMC\n");

    private PdfContent Trace(Path path)
    {
        Numbers(path.Start.X, path.Start.Y).Write("m\n");
        foreach (var s in path.Segments)
        {
            if (s.IsCubic) Numbers(s.Handle1.X, s.Handle1.Y, s.Handle2.X, s.Handle2.Y, s.End.X, s.End.Y).Write("c\n");
            else Numbers(s.End.X, s.End.Y).Write("l\n");
        }
        return path.IsClosed ? Write("h\n") : this;
    }

    private PdfContent Colour(string colour, string op) => Numbers(Shares(colour)).Write(op).Write("\n");

    /// <summary>Red, green and blue of a colour, 0 to 1.</summary>
    public static double[] Shares(string colour) => [.. Enumerable.Range(0, 3).Select(i => int.Parse(colour.AsSpan(1 + 2 * i, 2), NumberStyles.HexNumber, CultureInfo.InvariantCulture) / 255.0)];

    private PdfContent Numbers(params ReadOnlySpan<double> numbers)
    {
        foreach (var n in numbers) _text.Append(n.ToString(Number, CultureInfo.InvariantCulture)).Append(' ');
        return this;
    }

    private PdfContent Write(string text)
    {
        _text.Append(text);
        return this;
    }
}
