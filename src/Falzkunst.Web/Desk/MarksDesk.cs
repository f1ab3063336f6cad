using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Printing.Registration;
using Falzkunst.Formats.Pictures;

namespace Falzkunst.Web.Desk;

/// <summary>Pictures of pages with marks for the screen.</summary>
public static class MarksDesk
{
    /// <summary>Side of the part of a picture that shows one mark, mm.</summary>
    public const double CropMm = 30;

    /// <summary>Around the middle of a mark, mm of the sheet.</summary>
    public static Box CropOf(LayoutMark mark)
    {
        var middle = mark.Outer + new Point(mark.Right, mark.Down) * Math.Min(mark.ArmMm / 2, CropMm / 3);
        return new Box(middle.X - CropMm / 2, middle.Y - CropMm / 2, middle.X + CropMm / 2, middle.Y + CropMm / 2);
    }

    /// <summary>The number from which all that chance does to a run's page follows.</summary>
    public static int SeedOf(Guid run) => BitConverter.ToInt32(run.ToByteArray(), 12);

    /// <summary>A square of a grey picture as PNG.</summary>
    public static byte[] Cut(InkRaster picture, Point from, double side) => PictureWriter.Png(Square(picture, from, side));

    /// <summary>A square of a grey picture; white where it ends.</summary>
    /// <param name="picture">The picture.</param>
    /// <param name="from">Its upper left corner, dots.</param>
    /// <param name="side">Its side, dots.</param>
    public static PixelImage Square(InkRaster picture, Point from, double side)
    {
        var n = Math.Clamp((int)Math.Round(side), 1, 2000);
        var (left, top) = ((int)Math.Round(from.X), (int)Math.Round(from.Y));
        return Grey(n, n, (x, y) => picture.At(left + x, top + y));
    }

    /// <summary>A part of a sheet seen straight from above, as a picture in a page's own text.</summary>
    /// <param name="picture">The scan or photo.</param>
    /// <param name="map">Where the sheet is on it.</param>
    /// <param name="box">The part, mm of the sheet.</param>
    public static string Straight(InkRaster picture, PictureMap map, Box box)
    {
        const double Dots = 3;
        var seen = Grey((int)Math.Ceiling(box.Width * Dots), (int)Math.Ceiling(box.Height * Dots), (x, y) =>
            map.Apply(box.Min + new Point((x + 0.5) / Dots, (y + 0.5) / Dots)) is var dot ? (int)picture.At(dot.X, dot.Y) : 0);
        return InText(seen);
    }

    /// <summary>A picture in a page's own text.</summary>
    public static string InText(PixelImage picture) => "data:image/png;base64," + Convert.ToBase64String(PictureWriter.Png(picture));

    /// <summary>A whole grey picture as PNG.</summary>
    public static byte[] Whole(InkRaster picture) => PictureWriter.Png(Grey(picture.Width, picture.Height, picture.At));

    private static PixelImage Grey(int width, int height, Func<int, int, int> inkAt)
    {
        var rgba = new byte[width * height * PixelImage.BytesEach];
        for (var i = 0; i < width * height; i++)
        {
            rgba.AsSpan(i * PixelImage.BytesEach, 3).Fill((byte)(255 - inkAt(i % width, i / width)));
            rgba[i * PixelImage.BytesEach + 3] = 255;
        }
        return new PixelImage(width, height, rgba);
    }
}
