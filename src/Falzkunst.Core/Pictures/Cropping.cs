namespace Falzkunst.Core.Pictures;

/// <summary>Parts of pictures.</summary>
internal static class Cropping
{
    public static PixelImage Apply(PixelImage image, Crop crop)
    {
        var (x, y, width, height) = Part(image.Width, image.Height, crop);
        var made = new byte[width * height * PixelImage.BytesEach];
        for (var row = 0; row < height; row++) Buffer.BlockCopy(image.Rgba, image.At(x, y + row), made, row * width * PixelImage.BytesEach, width * PixelImage.BytesEach);
        if (crop.Form == CropForm.Ellipse) KeepEllipse(made, width, height);
        return new PixelImage(width, height, made);
    }

    /// <summary>The dots that are kept: the first, and how many.</summary>
    public static (int X, int Y, int Width, int Height) Part(int width, int height, Crop crop)
    {
        var (x, y) = ((int)Math.Clamp(Math.Round(crop.X * width), 0, width - 1), (int)Math.Clamp(Math.Round(crop.Y * height), 0, height - 1));
        return (x, y, Math.Clamp((int)Math.Round(crop.Width * width), 1, width - x), Math.Clamp((int)Math.Round(crop.Height * height), 1, height - y));
    }

    private static void KeepEllipse(byte[] rgba, int width, int height)
    {
        for (var y = 0; y < height; y++)
        {
            for (var x = 0; x < width; x++)
            {
                var (u, v) = ((x + 0.5) / width * 2 - 1, (y + 0.5) / height * 2 - 1);
                var far = Math.Sqrt(u * u + v * v);
                // One dot of the rim is partly covered.
                var covered = Math.Clamp((1 - far) * Math.Min(width, height) / 2 + 0.5, 0, 1);
                var at = (y * width + x) * PixelImage.BytesEach + 3;
                rgba[at] = (byte)(rgba[at] * covered + 0.5);
            }
        }
    }
}
