using Falzkunst.Formats.Pictures;
using Falzkunst.Formats.Svg;

namespace Falzkunst.Lab;

internal static class ImportVerb
{
    public static object Run(Arguments arguments)
    {
        var (bytes, path) = arguments.File();
        if (PictureReader.LooksLikePicture(bytes)) return Picture(arguments, bytes, path);
        var (drawing, milliseconds) = Timed.Run(() => ArtFile.Read(bytes));
        if (arguments.Option("--svg") is { } target) Arguments.WriteText(target, SvgDrawingWriter.Write(drawing));
        return new
        {
            drawing.Width,
            drawing.Height,
            Lines = drawing.LineCount,
            Segments = drawing.SegmentCount,
            drawing.Images,
            Warnings = drawing.Notes.Select(n => new { n.Code, n.Message, n.Where }),
            ElapsedMs = milliseconds,
        };
    }

    /// <summary>A picture has no lines; it is one image of the size that it says, or at the usual resolution.</summary>
    private static object Picture(Arguments arguments, byte[] bytes, string path)
    {
        var (picture, milliseconds) = Timed.Run(() => TraceVerb.Read(bytes, path));
        var mm = TraceVerb.MmPerDot(picture);
        var (width, height) = (Math.Round(picture.Image.Width * mm, 4), Math.Round(picture.Image.Height * mm, 4));
        if (arguments.Option("--svg") is { } target)
        {
            var png = Convert.ToBase64String(PictureWriter.Png(picture.Image));
            Arguments.WriteText(target, FormattableString.Invariant($"<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{width}mm\" height=\"{height}mm\" viewBox=\"0 0 {width} {height}\"><image width=\"{width}\" height=\"{height}\" preserveAspectRatio=\"none\" href=\"data:image/png;base64,{png}\"/></svg>"));
        }
        return new { Width = width, Height = height, Lines = 0, Segments = 0, Images = 1, Warnings = Array.Empty<object>(), ElapsedMs = milliseconds };
    }
}
