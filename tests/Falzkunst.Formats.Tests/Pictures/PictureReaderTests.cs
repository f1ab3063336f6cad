using Falzkunst.Core.Pictures;
using Falzkunst.Formats.Pictures;
using Falzkunst.Formats.Wire;
using Falzkunst.Tests.Shared;
using SkiaSharp;

namespace Falzkunst.Formats.Tests.Pictures;

public sealed class PictureReaderTests
{
    /// <summary>Red at the left, green at the right, blue along the bottom.</summary>
    private static (byte R, byte G, byte B) Dot(int x, int y) => y >= 10 ? ((byte)0, (byte)0, (byte)255) : x < 8 ? ((byte)255, (byte)0, (byte)0) : ((byte)0, (byte)255, (byte)0);

    private static byte[] Png => MadePictures.Png(16, 12, (x, y) => Dot(x, y) is var (r, g, b) ? (r, g, b, (byte)(x == 0 ? 0 : 255)) : default, 11811);

    private static byte[] Encoded(SKEncodedImageFormat format)
    {
        using var bitmap = new SKBitmap(new SKImageInfo(16, 12, SKColorType.Rgba8888));
        for (var y = 0; y < 12; y++) for (var x = 0; x < 16; x++) bitmap.SetPixel(x, y, Dot(x, y) is var (r, g, b) ? new SKColor(r, g, b) : default);
        using var data = bitmap.Encode(format, 100);
        return data.ToArray();
    }

    private static (int R, int G, int B, int A) At(PixelImage image, int x, int y) => image.At(x, y) is var i ? (image.Rgba[i], image.Rgba[i + 1], image.Rgba[i + 2], image.Rgba[i + 3]) : default;

    private static void IsNear((int R, int G, int B) wanted, (int R, int G, int B, int A) found) =>
        Assert.True(Math.Abs(wanted.R - found.R) + Math.Abs(wanted.G - found.G) + Math.Abs(wanted.B - found.B) < 60, $"{wanted} {found}");

    [Fact]
    public void Every_kind_is_read_with_its_dots_where_they_belong()
    {
        foreach (var (media, file) in new[]
        {
            ("image/png", Png), ("image/bmp", MadePictures.Bmp(16, 12, Dot)), ("image/tiff", MadePictures.Tiff(16, 12, Dot)),
            ("image/jpeg", Encoded(SKEncodedImageFormat.Jpeg)), ("image/webp", Encoded(SKEncodedImageFormat.Webp)),
        })
        {
            Assert.True(PictureReader.LooksLikePicture(file), media);
            var read = PictureReader.Read(file);
            Assert.Equal((media, 16, 12), (read.MediaType, read.Image.Width, read.Image.Height));
            IsNear((255, 0, 0), At(read.Image, 3, 3));
            IsNear((0, 255, 0), At(read.Image, 12, 3));
            IsNear((0, 0, 255), At(read.Image, 3, 11));
        }
        // The first picture of a GIF.
        IsNear((255, 0, 0), At(PictureReader.Read(MadePictures.Gif()).Image, 0, 0));
        Assert.False(PictureReader.LooksLikePicture("<svg/>"u8));
    }

    [Fact]
    public void Transparency_and_resolution_are_read()
    {
        var png = PictureReader.Read(Png);
        Assert.Equal((0, 255), (At(png.Image, 0, 5).A, At(png.Image, 1, 5).A));
        Assert.Equal(300, png.DotsPerInch!.Value, 0.1);
        Assert.Equal(300, PictureReader.Read(MadePictures.Bmp(16, 12, Dot)).DotsPerInch!.Value, 0.1);
        Assert.Equal(300, PictureReader.Read(MadePictures.Tiff(16, 12, Dot)).DotsPerInch!.Value, 0.1);
        Assert.Null(PictureReader.Read(MadePictures.Png(4, 4, (_, _) => (0, 0, 0, 255))).DotsPerInch);
    }

    [Fact]
    public void A_photo_lies_as_its_camera_was_held()
    {
        var jpeg = Encoded(SKEncodedImageFormat.Jpeg);
        foreach (var (orientation, size, red, green) in new (ushort, (int, int), (int, int), (int, int))[]
        {
            (1, (16, 12), (3, 3), (12, 3)), (2, (16, 12), (12, 3), (3, 3)), (3, (16, 12), (12, 8), (3, 8)), (4, (16, 12), (3, 8), (12, 8)),
            (5, (12, 16), (3, 3), (3, 12)), (6, (12, 16), (8, 3), (8, 12)), (7, (12, 16), (8, 12), (8, 3)), (8, (12, 16), (3, 12), (3, 3)),
        })
        {
            var image = PictureReader.Read(MadePictures.WithOrientation(jpeg, orientation)).Image;
            Assert.Equal(size, (image.Width, image.Height));
            IsNear((255, 0, 0), At(image, red.Item1, red.Item2));
            IsNear((0, 255, 0), At(image, green.Item1, green.Item2));
        }
    }

    /// <summary>32 by 8 dots in four bars: cyan, magenta, yellow, black, inverted and with an Adobe marker, as programs for print write them. Made for this test with Pillow.</summary>
    private const string Cmyk = "/9j/7gAOQWRvYmUAZAAAAAAA/9sAQwACAQEBAQECAQEBAgICAgIEAwICAgIFBAQDBAYFBgYGBQYGBgcJCAYHCQcGBggLCAkKCgoKCgYICwwLCgwJCgoK/8AAFAgACAAgBEMRAE0RAFkRAEsRAP/EAB8AAAEFAQEBAQEBAAAAAAAAAAABAgMEBQYHCAkKC//EALUQAAIBAwMCBAMFBQQEAAABfQECAwAEEQUSITFBBhNRYQcicRQygZGhCCNCscEVUtHwJDNicoIJChYXGBkaJSYnKCkqNDU2Nzg5OkNERUZHSElKU1RVVldYWVpjZGVmZ2hpanN0dXZ3eHl6g4SFhoeIiYqSk5SVlpeYmZqio6Slpqeoqaqys7S1tre4ubrCw8TFxsfIycrS09TV1tfY2drh4uPk5ebn6Onq8fLz9PX29/j5+v/aAA4EQwBNAFkASwAAPwD+f+v38r9/K/fyv7/K/gDooor+/wAr+AOiiiv7/K/gDr//2Q==";

    [Fact]
    public void A_photo_for_print_has_the_colours_of_its_inks()
    {
        var image = PictureReader.Read(Convert.FromBase64String(Cmyk)).Image;
        Assert.Equal((32, 8), (image.Width, image.Height));
        bool[] Dark(int x) => At(image, x, 4) is var (r, g, b, _) ? [r < 110, g < 110, b < 110] : [];
        Assert.Equal([true, false, false], Dark(4));
        Assert.Equal([false, true, false], Dark(12));
        Assert.Equal([false, false, true], Dark(20));
        Assert.Equal([true, true, true], Dark(28));
    }

    /// <summary>Red dots under a profile whose red and green primaries are exchanged. Made for this test with Pillow.</summary>
    private const string Exchanged = "iVBORw0KGgoAAAANSUhEUgAAABAAAAAICAIAAAB/FOjAAAABdWlDQ1BJQ0MgUHJvZmlsZQAAeJx1kctLAlEUxn9qUaThoqCIgllYtFCIgmhZtnAjIWaQ1UbHV+BjmFFC2gZtWggtoja9Fv0HtQ3aFgRBEUS0btlrEzKdUUEJvcOd8+O79zuc+QbswayaM7rmIZcv6uGAX1mNrik97zgZYwiwx1RDWwiFgnRcP4/YrPrgs3p1vtd2ORNJQwVbr/CsqulFYZmG4FZRs3hPeFDNxBLCJ8LetAwofGvp8Tq/WazX+avGkfCijG71VNItHG9hNaPnhCeFPblsSW3MY32JK5lfWZY6InsUgzAB/CjEKbFJliI+qXnJrL1vquZboiAeVd4aZXRxpMmI1ytqSbompaZET8qTpWzl/j9PIzUzXe/u8kP3q2l+jkPPPlQrpvl7aprVM3C8wHW+6S9ITnPfoleamucY3DtwedPU4gdwtQvDz1pMj9Ukh2x7KgUfF9AfhYF76FuvZ9U45/wJItvyi+7g8Agm5L574w/Gjmfv1x3X8gAAABRJREFUeJxj/M9AGmAiUf2oBqIAAJNQAQ/5cRcVAAAAAElFTkSuQmCC";

    [Fact]
    public void Dots_are_brought_from_their_own_colour_space_to_srgb()
    {
        // What the file calls red is what sRGB calls green, as near as its gamut goes.
        var (r, g, b, _) = At(PictureReader.Read(Convert.FromBase64String(Exchanged)).Image, 5, 4);
        Assert.True(g > 230 && r < 60 && b < 60, $"{r} {g} {b}");
    }

    [Fact]
    public void Sixteen_bits_a_channel_come_as_eight()
    {
        // Grey of 16 bits: 0x80FF.
        var rows = new byte[4 * (4 * 2 + 1)];
        for (var i = 0; i < rows.Length; i++) rows[i] = i % 9 == 0 ? (byte)0 : i % 9 % 2 == 1 ? (byte)0x80 : (byte)0xFF;
        IsNear((128, 128, 128), At(PictureReader.Read(MadePictures.PngOf(4, 4, 16, 0, rows)).Image, 2, 2));
    }

    [Fact]
    public void Written_for_the_screen_and_read_again_the_dots_are_the_same_and_a_fitted_one_is_its_mean()
    {
        var image = PictureReader.Read(Png).Image;
        var again = PictureWriter.FromPng(PictureWriter.Png(image));
        Assert.Equal(Enumerable.Range(0, 12).Select(y => At(image, 5, y)), Enumerable.Range(0, 12).Select(y => At(again, 5, y)));
        var small = PictureWriter.Fitted(image, 8);
        Assert.Equal((8, 6), (small.Width, small.Height));
        IsNear((255, 0, 0), At(small, 2, 1));
        Assert.Same(image, PictureWriter.Fitted(image, 16));
    }

    /// <summary>Forty files that are no pictures, or say what is not so.</summary>
    public static IEnumerable<(string Name, byte[] File)> Hostile()
    {
        (string Name, byte[] File)[] good =
        [
            ("png", Png), ("jpeg", Encoded(SKEncodedImageFormat.Jpeg)), ("webp", Encoded(SKEncodedImageFormat.Webp)), ("bmp", MadePictures.Bmp(16, 12, Dot)),
            ("tiff", MadePictures.Tiff(16, 12, Dot)), ("gif", MadePictures.Gif()),
        ];
        foreach (var (name, file) in good)
        {
            yield return ($"{name}, its first half", file[..(file.Length / 2)]);
            yield return ($"{name}, a few bytes", file[..Math.Min(20, file.Length)]);
            yield return ($"{name}, its kind alone", file[..4]);
            var random = new Random(file.Length);
            yield return ($"{name}, scrambled", [.. file[..8], .. file[8..].Select(b => (byte)(b ^ (random.Next(6) == 0 ? random.Next(256) : 0)))]);
            yield return ($"{name}, zeros behind its kind", [.. file[..4], .. new byte[4000]]);
        }
        yield return ("png, 100,000 wide", MadePictures.PngOf(100_000, 100_000, 8, 6, [0]));
        yield return ("png, a bomb", MadePictures.PngOf(29_000, 29_000, 8, 6, new byte[8_000_000]));
        yield return ("png, no width", MadePictures.PngOf(0, 5, 8, 6, [0]));
        yield return ("png, rows that lack", MadePictures.PngOf(2000, 2000, 8, 6, new byte[100]));
        yield return ("png, bits that are none", MadePictures.PngOf(4, 4, 7, 6, new byte[100]));
        yield return ("png, a colour that is none", MadePictures.PngOf(4, 4, 8, 5, new byte[100]));
        var bmp = MadePictures.Bmp(16, 12, Dot);
        bmp[21] = 0x7F;
        yield return ("bmp, two thousand million wide", bmp);
        var tiff = MadePictures.Tiff(16, 12, Dot);
        tiff[4] = 0;
        (tiff[5], tiff[6], tiff[7]) = (0xFF, 0xFF, 0x7F);
        yield return ("tiff, its directory far away", tiff);
        yield return ("an svg", "<svg xmlns=\"http://www.w3.org/2000/svg\"/>"u8.ToArray());
        yield return ("nothing", []);
    }

    [Fact]
    public void Hostile_pictures_are_read_or_refused_in_a_sentence()
    {
        var all = Hostile().ToList();
        Assert.Equal(40, all.Count);
        var refused = 0;
        foreach (var (name, file) in all)
        {
            try
            {
                PictureReader.Read(file);
            }
            catch (ReadRefused e)
            {
                refused++;
                Assert.True(e.Message.EndsWith('.') && e.Message.Length > 40, $"{name}: {e.Message}");
            }
        }
        Assert.True(refused > 30, $"{refused} refused");
        Assert.Equal("too-large", Assert.Throws<ReadRefused>(() => PictureReader.Read(MadePictures.PngOf(100_000, 100_000, 8, 6, [0]))).Code);
        Assert.Equal("too-large", Assert.Throws<ReadRefused>(() => PictureReader.Read(MadePictures.PngOf(29_000, 29_000, 8, 6, [0]))).Code);
    }

    [Fact]
    public async Task Dots_come_over_the_pipe_as_they_are_and_no_others_are_taken()
    {
        var stop = TestContext.Current.CancellationToken;
        var read = PictureReader.Read(Png);
        using var pipe = new MemoryStream();
        ReadingWire.WritePicture(pipe, read);
        pipe.Position = 0;
        var came = await ReadingWire.ReadPictureAsync(pipe, stop);
        Assert.Equal((read.Image.Width, read.Image.Height, read.MediaType, read.DotsPerInch), (came.Image.Width, came.Image.Height, came.MediaType, came.DotsPerInch));
        Assert.Equal(read.Image.Rgba, came.Image.Rgba);
        // A size that the bytes do not bear out.
        var lying = pipe.ToArray();
        lying[5] = 200;
        await Assert.ThrowsAnyAsync<IOException>(() => ReadingWire.ReadPictureAsync(new MemoryStream(lying), stop));
        (lying[5], lying[6], lying[7], lying[8]) = (255, 255, 255, 127);
        await Assert.ThrowsAsync<InvalidDataException>(() => ReadingWire.ReadPictureAsync(new MemoryStream(lying), stop));
    }
}
