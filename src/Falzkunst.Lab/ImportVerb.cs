using Falzkunst.Formats.Svg;

namespace Falzkunst.Lab;

internal static class ImportVerb
{
    public static object Run(Arguments arguments)
    {
        var (bytes, _) = arguments.File();
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
}
