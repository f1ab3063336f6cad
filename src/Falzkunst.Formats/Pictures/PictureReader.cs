using System.IO;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using SkiaSharp;

namespace Falzkunst.Formats.Pictures;

/// <summary>
/// Reads pictures by what is in the file, not by its name: PNG, JPEG, WebP, BMP and the first picture of a GIF by Skia, TIFF by LibTiff.
/// Colours come as sRGB by the file's profile, orientation as its camera said, 16 bits a channel as 8.
/// </summary>
public static class PictureReader
{
    /// <summary>Larger pictures are refused before a dot is read.</summary>
    public const long MostDots = CardPicture.MostDots;

    /// <summary>No side is longer, dots.</summary>
    public const int LongestSide = 30_000;

    private static readonly Dictionary<SKEncodedImageFormat, string> MediaTypes = new()
    {
        [SKEncodedImageFormat.Png] = "image/png",
        [SKEncodedImageFormat.Jpeg] = "image/jpeg",
        [SKEncodedImageFormat.Webp] = "image/webp",
        [SKEncodedImageFormat.Bmp] = "image/bmp",
        [SKEncodedImageFormat.Gif] = "image/gif",
    };

    /// <summary>The file begins as one of the kinds that are read.</summary>
    public static bool LooksLikePicture(ReadOnlySpan<byte> file) => FileKinds.IsPicture(file);

    /// <summary>Reads a picture.</summary>
    /// <param name="file">Its bytes; taken as hostile.</param>
    /// <param name="budget">How much it may ask for; the usual where none is given.</param>
    /// <exception cref="ReadRefused">It is none, too large, damaged, or of a kind that is not read.</exception>
    public static ReadPicture Read(ReadOnlyMemory<byte> file, Budget? budget = null)
    {
        budget ??= new Budget(BudgetLimits.Reading);
        try
        {
            budget.Bytes(file.Length);
            if (file.Length == 0) throw new ReadRefused("other-kind", "The file is empty. Save the picture again, or take another copy.");
            var read = TiffPictures.LooksLikeTiff(file.Span) ? TiffPictures.Read(file.ToArray()) : BySkia(file);
            budget.Look();
            return read with { DotsPerInch = PictureFacts.DotsPerInch(file) };
        }
        catch (BudgetSpent spent)
        {
            throw ReadRefused.ForBudget(spent);
        }
    }

    /// <exception cref="ReadRefused">A picture of this size is not read.</exception>
    internal static void CheckSize(long width, long height)
    {
        if (width < 1 || height < 1) throw new ReadRefused("damaged", "The picture says that it has no size. Save it again from the program that made it.");
        if (width > LongestSide || height > LongestSide || width * height > MostDots)
            throw new ReadRefused("too-large", FormattableString.Invariant($"The picture has {width:N0} × {height:N0} dots; up to {MostDots / 1_000_000} million are read, no side longer than {LongestSide:N0}. Make it smaller and bring it in again."));
    }

    private static ReadPicture BySkia(ReadOnlyMemory<byte> file)
    {
        using var stream = new MemoryStream(file.ToArray(), writable: false);
        using var codec = SKCodec.Create(stream, out var made);
        if (codec is null || !MediaTypes.TryGetValue(codec.EncodedFormat, out var media))
            throw made is SKCodecResult.IncompleteInput && FileKinds.IsPicture(file.Span) ? Damaged() : new ReadRefused("other-kind", "This is no picture that can be read: PNG, JPEG, WebP, BMP, GIF and TIFF are. Save it as one of those.");
        CheckSize(codec.Info.Width, codec.Info.Height);
        using var srgb = SKColorSpace.CreateSrgb();
        var (image, result) = SkiaDots.Read(codec, srgb);
        if (result is not SKCodecResult.Success) throw result is SKCodecResult.InvalidConversion or SKCodecResult.Unimplemented or SKCodecResult.CouldNotRewind ? Unread() : Damaged();
        return new ReadPicture(Oriented.Upright(image, codec.EncodedOrigin), null, media);
    }

    internal static ReadRefused Damaged() => new("damaged", "The picture is damaged or ends too early. Save it again from the program that made it, or take another copy.");

    internal static ReadRefused Unread() => new("not-read", "The colours of this picture are kept in a way that is not read. Save it as RGB with 8 bits a channel.");
}
