using System.IO;
using BitMiracle.LibTiff.Classic;
using Falzkunst.Core.Pictures;

namespace Falzkunst.Formats.Pictures;

/// <summary>The first picture of a TIFF file.</summary>
internal static class TiffPictures
{
    public static bool LooksLikeTiff(ReadOnlySpan<byte> file) => file.StartsWith("II*\0"u8) || file.StartsWith("MM\0*"u8);

    /// <exception cref="ReadRefused">It is damaged, too large, or of a kind that is not read.</exception>
    public static ReadPicture Read(byte[] file)
    {
        Tiff.SetErrorHandler(new Silent());
        try
        {
            using var stream = new MemoryStream(file, writable: false);
            using var tiff = Tiff.ClientOpen("picture", "r", stream, new TiffStream()) ?? throw PictureReader.Damaged();
            var (width, height) = (Field(tiff, TiffTag.IMAGEWIDTH), Field(tiff, TiffTag.IMAGELENGTH));
            PictureReader.CheckSize(width, height);
            if (!tiff.RGBAImageOK(out _)) throw PictureReader.Unread();
            var raster = new int[width * height];
            if (!tiff.ReadRGBAImageOriented(width, height, raster, BitMiracle.LibTiff.Classic.Orientation.TOPLEFT, stopOnError: true)) throw PictureReader.Damaged();
            var rgba = new byte[(long)raster.Length * PixelImage.BytesEach];
            for (var i = 0; i < raster.Length; i++)
            {
                // The library gives colours multiplied by how opaque they are.
                var a = Tiff.GetA(raster[i]);
                byte Plain(int c) => a is 0 or 255 ? (byte)c : (byte)Math.Min(255, c * 255 / a);
                (rgba[4 * i], rgba[4 * i + 1], rgba[4 * i + 2], rgba[4 * i + 3]) = (Plain(Tiff.GetR(raster[i])), Plain(Tiff.GetG(raster[i])), Plain(Tiff.GetB(raster[i])), (byte)a);
            }
            return new ReadPicture(new PixelImage(width, height, rgba), null, "image/tiff");
        }
        catch (Exception e) when (e is IOException or IndexOutOfRangeException or ArgumentException or NullReferenceException or OverflowException or InvalidOperationException or InvalidCastException or NotImplementedException or DivideByZeroException)
        {
            // What a library for files of all times throws at a broken one.
            throw PictureReader.Damaged();
        }
    }

    private static int Field(Tiff tiff, TiffTag tag) => tiff.GetField(tag) is [var value, ..] ? value.ToInt() : 0;

    private sealed class Silent : TiffErrorHandler
    {
        public override void ErrorHandler(Tiff tif, string method, string format, params object[] args) { }
        public override void ErrorHandlerExt(Tiff tif, object clientData, string method, string format, params object[] args) { }
        public override void WarningHandler(Tiff tif, string method, string format, params object[] args) { }
        public override void WarningHandlerExt(Tiff tif, object clientData, string method, string format, params object[] args) { }
    }
}
