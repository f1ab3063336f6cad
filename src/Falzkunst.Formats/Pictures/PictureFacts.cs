using System.IO;
using MetadataExtractor;
using MetadataExtractor.Formats.Bmp;
using MetadataExtractor.Formats.Exif;
using MetadataExtractor.Formats.Jfif;
using MetadataExtractor.Formats.Png;

namespace Falzkunst.Formats.Pictures;

/// <summary>What a picture's file says of its size on paper.</summary>
internal static class PictureFacts
{
    /// <summary>Resolutions beyond these are no statement about paper, dots to the inch.</summary>
    private const double Least = 20, Most = 9600;

    private const double InchMm = 25.4;

    /// <summary>Dots to the inch; null where the file does not say, or what it says makes no sense.</summary>
    public static double? DotsPerInch(ReadOnlyMemory<byte> file)
    {
        try
        {
            using var stream = new MemoryStream(file.ToArray(), writable: false);
            var said = ImageMetadataReader.ReadMetadata(stream);
            return said.Select(Told).FirstOrDefault(d => d is >= Least and <= Most);
        }
        catch (Exception e) when (e is ImageProcessingException or IOException or ArgumentException or IndexOutOfRangeException or OverflowException or FormatException or InvalidCastException)
        {
            // The dots were read; what is said of them is a help and no more.
            return null;
        }
    }

    private static double? Told(MetadataExtractor.Directory directory) => directory switch
    {
        PngDirectory png when png.TryGetInt32(PngDirectory.TagPixelsPerUnitX, out var perMetre) && png.TryGetInt32(PngDirectory.TagUnitSpecifier, out var unit) && unit == 1 => perMetre * InchMm / 1000,
        JfifDirectory jfif when jfif.TryGetInt32(JfifDirectory.TagResX, out var x) && jfif.TryGetInt32(JfifDirectory.TagUnits, out var unit) && unit is 1 or 2 => unit == 1 ? x : x * InchMm / 10,
        ExifIfd0Directory exif when exif.TryGetRational(ExifDirectoryBase.TagXResolution, out var x) && exif.TryGetInt32(ExifDirectoryBase.TagResolutionUnit, out var unit) && unit is 2 or 3 => unit == 2 ? x.ToDouble() : x.ToDouble() * InchMm / 10,
        BmpHeaderDirectory bmp when bmp.TryGetInt32(BmpHeaderDirectory.TagXPixelsPerMeter, out var perMetre) => perMetre * InchMm / 1000,
        _ => null,
    };
}
