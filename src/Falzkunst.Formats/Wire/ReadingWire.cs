using System.Buffers.Binary;
using System.IO;
using System.Text;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Texts;
using Falzkunst.Formats.Fonts;
using Falzkunst.Formats.Pictures;

namespace Falzkunst.Formats.Wire;

/// <summary>What a file is read as.</summary>
public enum ReadingKind
{
    Art,
    Face,
    Picture,

    /// <summary>A face that words are set in.</summary>
    Words,
}

/// <summary>A file to be read, and how long that may take.</summary>
public sealed record ReadingRequest(ReadingKind Kind, byte[] File, TimeSpan Time)
{
    /// <summary>What is set in a face; null where nothing is.</summary>
    public WordsToShape? Words { get; init; }
}

/// <summary>Words to be shaped by a face.</summary>
/// <param name="Words">The words; lines are parted by line feeds.</param>
/// <param name="Forms">Tags of features beyond the usual ones.</param>
public sealed record WordsToShape(string Words, IReadOnlyList<string> Forms);

/// <summary>
/// What server and reading process say to each other over a pipe. A request is its kind, time in ms, length of the file, length of
/// what is asked of it, and those two; an answer is a byte that says what follows, its length, and that. Numbers are little-endian.
/// </summary>
public static class ReadingWire
{
    private const byte IsDrawing = 1;
    private const byte IsRefusal = 2;
    private const byte IsFace = 3;
    private const byte IsPicture = 4;
    private const byte IsWords = 5;
    private const int HeadBytes = 13;
    private const int LongestName = 60;

    /// <summary>A drawing of the largest size that is read takes about half of this.</summary>
    private const int LongestAnswer = 256 * 1024 * 1024;

    /// <summary>Sends a file to the reading process.</summary>
    public static async Task WriteRequestAsync(Stream pipe, ReadingRequest request, CancellationToken stop)
    {
        var asked = Asked(request.Words);
        var head = new byte[HeadBytes];
        head[0] = (byte)request.Kind;
        BinaryPrimitives.WriteInt32LittleEndian(head.AsSpan(1), (int)request.Time.TotalMilliseconds);
        BinaryPrimitives.WriteInt32LittleEndian(head.AsSpan(5), request.File.Length);
        BinaryPrimitives.WriteInt32LittleEndian(head.AsSpan(9), asked.Length);
        await pipe.WriteAsync(head, stop);
        await pipe.WriteAsync(request.File, stop);
        await pipe.WriteAsync(asked, stop);
        await pipe.FlushAsync(stop);
    }

    /// <summary>The next file; null at the end of the pipe.</summary>
    public static ReadingRequest? ReadRequest(Stream pipe)
    {
        Span<byte> head = stackalloc byte[HeadBytes];
        if (pipe.ReadAtLeast(head, HeadBytes, throwOnEndOfStream: false) < HeadBytes) return null;
        var file = new byte[BinaryPrimitives.ReadInt32LittleEndian(head[5..])];
        pipe.ReadExactly(file);
        var asked = new byte[BinaryPrimitives.ReadInt32LittleEndian(head[9..])];
        pipe.ReadExactly(asked);
        return new ReadingRequest((ReadingKind)head[0], file, TimeSpan.FromMilliseconds(BinaryPrimitives.ReadInt32LittleEndian(head[1..]))) { Words = Words(asked) };
    }

    private static byte[] Asked(WordsToShape? words)
    {
        if (words is null) return [];
        using var asked = new MemoryStream();
        using (var writer = new BinaryWriter(asked, Encoding.UTF8, leaveOpen: true))
        {
            writer.Write(words.Words);
            writer.Write(words.Forms.Count);
            foreach (var form in words.Forms) writer.Write(form);
        }
        return asked.ToArray();
    }

    private static WordsToShape? Words(byte[] asked)
    {
        if (asked.Length == 0) return null;
        using var reader = new BinaryReader(new MemoryStream(asked), Encoding.UTF8);
        return new WordsToShape(reader.ReadString(), [.. Enumerable.Range(0, reader.ReadInt32()).Select(_ => reader.ReadString())]);
    }

    public static void WriteDrawing(Stream pipe, Drawing drawing) => Write(pipe, IsDrawing, w => DrawingWire.Write(w, drawing));

    public static void WriteFace(Stream pipe, FaceFacts facts) => Write(pipe, IsFace, w =>
    {
        w.Write(facts.Name);
        w.Write(facts.IsStroke);
    });

    public static void WriteShaped(Stream pipe, ShapedText shaped) => Write(pipe, IsWords, w => ShapedWire.Write(w, shaped));

    /// <summary>A picture: its size, resolution and kind, then its dots as they are.</summary>
    public static void WritePicture(Stream pipe, ReadPicture picture)
    {
        using var facts = new MemoryStream();
        using (var writer = new BinaryWriter(facts, Encoding.UTF8, leaveOpen: true))
        {
            writer.Write(picture.Image.Width);
            writer.Write(picture.Image.Height);
            writer.Write(picture.DotsPerInch ?? 0);
            writer.Write(picture.MediaType);
        }
        // The dots are not copied once more: there may be a quarter of a gigabyte of them.
        WriteHead(pipe, IsPicture, checked((int)facts.Length + picture.Image.Rgba.Length));
        facts.Position = 0;
        facts.CopyTo(pipe);
        pipe.Write(picture.Image.Rgba);
    }

    public static void WriteRefusal(Stream pipe, ReadRefused refused) => Write(pipe, IsRefusal, w =>
    {
        w.Write(refused.Code);
        w.Write(refused.Message);
    });

    private static void Write(Stream pipe, byte kind, Action<BinaryWriter> write)
    {
        using var body = new MemoryStream();
        using (var writer = new BinaryWriter(body, Encoding.UTF8, leaveOpen: true)) write(writer);
        WriteHead(pipe, kind, (int)body.Length);
        body.Position = 0;
        body.CopyTo(pipe);
    }

    private static void WriteHead(Stream pipe, byte kind, int length)
    {
        Span<byte> head = stackalloc byte[5];
        head[0] = kind;
        BinaryPrimitives.WriteInt32LittleEndian(head[1..], length);
        pipe.Write(head);
    }

    /// <summary>What a face that was asked for is. It comes of a process that a hostile file may have taken over, and is trusted no more than a file.</summary>
    /// <inheritdoc cref="ReadAnswerAsync"/>
    public static async Task<FaceFacts> ReadFaceAsync(Stream pipe, CancellationToken stop)
    {
        using var reader = await BodyAsync(pipe, IsFace, stop);
        return new FaceFacts(ShownText.Clean(reader.ReadString(), LongestName), reader.ReadBoolean());
    }

    /// <summary>What a face made of words. It comes of a process that a hostile face may have taken over, and is trusted no more than a file.</summary>
    /// <inheritdoc cref="ReadAnswerAsync"/>
    public static async Task<ShapedText> ReadShapedAsync(Stream pipe, string words, CancellationToken stop)
    {
        using var reader = await BodyAsync(pipe, IsWords, stop);
        return ShapedWire.Read(reader, words, BudgetLimits.Reading);
    }

    /// <summary>The dots of a picture that was asked for. They come of a process that a hostile file may have taken over, and are taken only in the number that their size says.</summary>
    /// <inheritdoc cref="ReadAnswerAsync"/>
    public static async Task<ReadPicture> ReadPictureAsync(Stream pipe, CancellationToken stop)
    {
        using var reader = await BodyAsync(pipe, IsPicture, stop);
        var (width, height, dotsPerInch, media) = (reader.ReadInt32(), reader.ReadInt32(), reader.ReadDouble(), ShownText.Clean(reader.ReadString(), LongestName));
        if (width is < 1 or > PictureReader.LongestSide || height is < 1 or > PictureReader.LongestSide || (long)width * height > PictureReader.MostDots) throw new InvalidDataException("That is no picture of a size that is read.");
        var rgba = new byte[(long)width * height * PixelImage.BytesEach];
        reader.BaseStream.ReadExactly(rgba);
        return new ReadPicture(new PixelImage(width, height, rgba), dotsPerInch is > 0 and < 1e5 ? dotsPerInch : null, media);
    }

    /// <summary>The answer to a request. It comes of a process that a hostile file may have taken over, and is trusted no more than a file.</summary>
    /// <exception cref="ReadRefused">The file was refused.</exception>
    /// <exception cref="InvalidDataException">It is no answer.</exception>
    /// <exception cref="EndOfStreamException">The process has ended.</exception>
    public static async Task<Drawing> ReadAnswerAsync(Stream pipe, CancellationToken stop)
    {
        using var reader = await BodyAsync(pipe, IsDrawing, stop);
        return DrawingWire.Read(reader, BudgetLimits.Reading);
    }

    private static async Task<BinaryReader> BodyAsync(Stream pipe, byte wanted, CancellationToken stop)
    {
        var head = new byte[5];
        await pipe.ReadExactlyAsync(head, stop);
        var length = BinaryPrimitives.ReadInt32LittleEndian(head.AsSpan(1));
        if (length is < 0 or > LongestAnswer || (head[0] != wanted && head[0] != IsRefusal)) throw new InvalidDataException("That is no answer of the reading process.");
        var body = new byte[length];
        await pipe.ReadExactlyAsync(body, stop);
        var reader = new BinaryReader(new MemoryStream(body, writable: false), Encoding.UTF8);
        if (head[0] == wanted) return reader;
        using (reader) throw new ReadRefused(ShownText.Clean(reader.ReadString(), 40), ShownText.Clean(reader.ReadString(), 400));
    }
}
