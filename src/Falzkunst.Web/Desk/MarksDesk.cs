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
        var rgba = new byte[n * n * PixelImage.BytesEach];
        for (var i = 0; i < n * n; i++)
        {
            var light = (byte)(255 - picture.At((int)Math.Round(from.X) + i % n, (int)Math.Round(from.Y) + i / n));
            rgba.AsSpan(i * PixelImage.BytesEach, 3).Fill(light);
            rgba[i * PixelImage.BytesEach + 3] = 255;
        }
        return new PixelImage(n, n, rgba);
    }

    /// <summary>A part of a sheet seen straight from above, as a picture in a page's own text.</summary>
    /// <param name="picture">The scan or photo.</param>
    /// <param name="map">Where the sheet is on it.</param>
    /// <param name="box">The part, mm of the sheet.</param>
    public static string Straight(InkRaster picture, PictureMap map, Box box)
    {
        const double Dots = 3;
        var (width, height) = ((int)Math.Ceiling(box.Width * Dots), (int)Math.Ceiling(box.Height * Dots));
        var ink = new byte[width * height];
        for (var i = 0; i < ink.Length; i++)
        {
            var dot = map.Apply(box.Min + new Point((i % width + 0.5) / Dots, (i / width + 0.5) / Dots));
            ink[i] = (byte)picture.At(dot.X, dot.Y);
        }
        return "data:image/png;base64," + Convert.ToBase64String(Whole(new InkRaster(width, height, ink)));
    }

    /// <summary>A whole grey picture as PNG.</summary>
    public static byte[] Whole(InkRaster picture)
    {
        var rgba = new byte[picture.Ink.Length * PixelImage.BytesEach];
        for (var i = 0; i < picture.Ink.Length; i++)
        {
            rgba.AsSpan(i * PixelImage.BytesEach, 3).Fill((byte)(255 - picture.Ink[i]));
            rgba[i * PixelImage.BytesEach + 3] = 255;
        }
        return PictureWriter.Png(new PixelImage(picture.Width, picture.Height, rgba));
    }
}
