using Falzkunst.Core.Pictures;
using SkiaSharp;

namespace Falzkunst.Formats.Pictures;

/// <summary>Pictures as their camera was held.</summary>
internal static class Oriented
{
    /// <summary>The picture turned and mirrored so that its top is up.</summary>
    public static PixelImage Upright(PixelImage image, SKEncodedOrigin origin) => origin switch
    {
        SKEncodedOrigin.TopRight => image.Mapped(Orientation.MirrorAcross),
        SKEncodedOrigin.BottomRight => image.Mapped(Orientation.HalfTurn),
        SKEncodedOrigin.BottomLeft => image.Mapped(Orientation.MirrorDown),
        SKEncodedOrigin.LeftTop => image.Mapped(Orientation.Transposed),
        SKEncodedOrigin.RightTop => image.Mapped(Orientation.QuarterRight),
        SKEncodedOrigin.RightBottom => image.Mapped(Orientation.Transversed),
        SKEncodedOrigin.LeftBottom => image.Mapped(Orientation.QuarterLeft),
        _ => image,
    };
}
