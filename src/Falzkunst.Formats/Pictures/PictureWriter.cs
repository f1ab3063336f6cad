using System.IO;
using System.Runtime.InteropServices;
using Falzkunst.Core.Pictures;
using SkiaSharp;

namespace Falzkunst.Formats.Pictures;

/// <summary>Pictures written for the screen.</summary>
public static class PictureWriter
{
    /// <summary>Of a noisy picture of two megapixels, 3 takes twice as long and saves a twelfth of its bytes.</summary>
    private const int Effort = 1;

    /// <summary>A picture as PNG.</summary>
    public static byte[] Png(PixelImage image) => WithPixels(image, pixels =>
    {
        using var data = pixels.Encode(new SKPngEncoderOptions(SKPngEncoderFilterFlags.Sub, Effort)) ?? throw new InvalidOperationException("The picture was not written.");
        return data.ToArray();
    });

    /// <summary>A PNG of our own making as dots.</summary>
    public static PixelImage FromPng(byte[] png)
    {
        using var codec = SKCodec.Create(new MemoryStream(png, writable: false)) ?? throw new InvalidDataException("This is no PNG.");
        var (image, result) = SkiaDots.Read(codec, null);
        return result == SKCodecResult.Success ? image : throw new InvalidDataException("This PNG is damaged.");
    }

    /// <summary>The picture with no side longer than so many dots, each the mean of those that it stands for; as it is where it is no larger.</summary>
    public static PixelImage Fitted(PixelImage image, int side)
    {
        var scale = (double)side / Math.Max(image.Width, image.Height);
        if (scale >= 1) return image;
        var (width, height) = (Math.Max(1, (int)Math.Round(image.Width * scale)), Math.Max(1, (int)Math.Round(image.Height * scale)));
        var made = new PixelImage(width, height, new byte[width * height * PixelImage.BytesEach]);
        WithPixels(image, from => WithPixels(made, to => from.ScalePixels(to, new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear)) ? to : throw new InvalidOperationException("The picture was not scaled.")));
        return made;
    }

    private static T WithPixels<T>(PixelImage image, Func<SKPixmap, T> use)
    {
        var pinned = GCHandle.Alloc(image.Rgba, GCHandleType.Pinned);
        try
        {
            using var pixels = new SKPixmap(new SKImageInfo(image.Width, image.Height, SKColorType.Rgba8888, SKAlphaType.Unpremul), pinned.AddrOfPinnedObject());
            return use(pixels);
        }
        finally
        {
            pinned.Free();
        }
    }
}
