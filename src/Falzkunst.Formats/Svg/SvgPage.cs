using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Svg;

/// <summary>The page of a file: its size in mm, and the map from the root's user units to it.</summary>
/// <param name="Width">mm.</param>
/// <param name="Height">mm.</param>
/// <param name="Map">User units to mm.</param>
/// <param name="UserWidth">Width of the view in user units, for percentages.</param>
/// <param name="UserHeight">Height of the view in user units.</param>
/// <param name="PixelMm">Millimetres to the CSS pixel.</param>
/// <param name="SaysSize">A side is given in a unit that has a physical size, so that this is the true size.</param>
internal sealed record SvgPage(double Width, double Height, Affine Map, double UserWidth, double UserHeight, double PixelMm, bool SaysSize)
{
    /// <summary>The size of a picture without any statement of size, in CSS.</summary>
    private static readonly (double Width, double Height) DefaultPixels = (300, 150);

    public static SvgPage Read(SvgNode root, Action<ReadingNote> note)
    {
        var box = SvgViewBox.Read(root["viewBox"]);
        // A percentage of the page is a percentage of what one sees, which here is the view box itself.
        var width = Side(root, "width", note);
        var height = Side(root, "height", note);
        if (box is { } b)
        {
            if (width is null && height is null) (width, height) = (b.Width, b.Height);
            width ??= height * b.Width / b.Height;
            height ??= width * b.Height / b.Width;
        }
        var w = width ?? DefaultPixels.Width;
        var h = height ?? DefaultPixels.Height;
        var map = (box is { } view ? SvgViewBox.Fit(view, w, h, root["preserveAspectRatio"]) : Affine.Identity)
            .Then(Affine.Scale(SvgLength.MmPerPixel, SvgLength.MmPerPixel));
        return new SvgPage(Math.Round(w * SvgLength.MmPerPixel, 9), Math.Round(h * SvgLength.MmPerPixel, 9), map, box?.Width ?? w, box?.Height ?? h, SvgLength.MmPerPixel, SvgLength.IsPhysical(root["width"]) || SvgLength.IsPhysical(root["height"]));
    }

    /// <summary>A stated side in pixels; null for none, for a share of what is around, and with a note for what is no size.</summary>
    private static double? Side(SvgNode root, string side, Action<ReadingNote> note)
    {
        if (root[side] is not { } text || text.Trim() is "" or "auto" || text.TrimEnd().EndsWith('%')) return null;
        if (SvgLength.Read(text, 0) is > 0 and < MostPixels and var pixels) return pixels;
        note(new ReadingNote("page-size", $"The file says its {side} is “{ShownText.Clean(text, 30)}”, which is no size; it was taken from what the drawing shows.", root.Place));
        return null;
    }

    /// <summary>A page a kilometre wide.</summary>
    private const double MostPixels = 1e6 / SvgLength.MmPerPixel;
}

/// <summary>The viewBox attribute and how it is fitted into a viewport.</summary>
internal static class SvgViewBox
{
    public static Box? Read(string? text) => Numbers(text) is (var x, var y, > 0 and < 1e9 and var w, > 0 and < 1e9 and var h) ? new Box(x, y, x + w, y + h) : null;

    /// <summary>A view of no width or height: nothing of what lies in it is shown (SVG 2, section 8.6).</summary>
    public static bool ShowsNothing(string? text) => Numbers(text) is (_, _, 0, >= 0) or (_, _, >= 0, 0);

    private static (double X, double Y, double Width, double Height)? Numbers(string? text)
    {
        if (text is null) return null;
        var scanner = new NumberScanner(text);
        return scanner.TryNumber(out var x) && scanner.TryNumber(out var y) && scanner.TryNumber(out var w) && scanner.TryNumber(out var h) ? (x, y, w, h) : null;
    }

    /// <summary>The map from the view box into a viewport at the origin (SVG 2, section 8.2).</summary>
    public static Affine Fit(Box view, double width, double height, string? preserve)
    {
        var words = (preserve ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var align = words.FirstOrDefault(w => w != "defer") ?? "xMidYMid";
        var (sx, sy) = (width / view.Width, height / view.Height);
        if (align != "none") sx = sy = words.Contains("slice") ? Math.Max(sx, sy) : Math.Min(sx, sy);
        var freeX = width - view.Width * sx;
        var freeY = height - view.Height * sy;
        var shareX = align.StartsWith("xMin", StringComparison.Ordinal) ? 0 : align.StartsWith("xMax", StringComparison.Ordinal) ? 1 : 0.5;
        var shareY = align.EndsWith("YMin", StringComparison.Ordinal) ? 0 : align.EndsWith("YMax", StringComparison.Ordinal) ? 1 : 0.5;
        if (align == "none") (shareX, shareY) = (0, 0);
        return Affine.Move(-view.MinX, -view.MinY).Then(Affine.Scale(sx, sy)).Then(Affine.Move(freeX * shareX, freeY * shareY));
    }
}
