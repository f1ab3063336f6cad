using System.Runtime.InteropServices;
using Falzkunst.Core.Pictures;
using SkiaSharp;

namespace Falzkunst.Formats.Pictures;

/// <summary>Dots as Skia reads them.</summary>
internal static class SkiaDots
{
    /// <summary>All dots of a picture, and how reading them ended.</summary>
    /// <param name="codec">The picture.</param>
    /// <param name="colours">What its colours are turned into; null leaves them as they are.</param>
    public static (PixelImage Image, SKCodecResult Result) Read(SKCodec codec, SKColorSpace? colours)
    {
        var info = new SKImageInfo(codec.Info.Width, codec.Info.Height, SKColorType.Rgba8888, SKAlphaType.Unpremul, colours);
        var rgba = new byte[(long)info.Width * info.Height * PixelImage.BytesEach];
        var pinned = GCHandle.Alloc(rgba, GCHandleType.Pinned);
        try
        {
            var result = codec.GetPixels(info, pinned.AddrOfPinnedObject());
            return (new PixelImage(info.Width, info.Height, rgba), result);
        }
        finally
        {
            pinned.Free();
        }
    }
}
