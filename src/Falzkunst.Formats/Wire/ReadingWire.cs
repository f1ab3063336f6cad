using System.Buffers.Binary;
using System.IO;
using System.Text;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Formats.Fonts;

namespace Falzkunst.Formats.Wire;

/// <summary>What a file is read as.</summary>
public enum ReadingKind
{
    Art,
    Face,
}

/// <summary>A file to be read, and how long that may take.</summary>
public sealed record ReadingRequest(ReadingKind Kind, byte[] File, TimeSpan Time);

/// <summary>
/// What server and reading process say to each other over a pipe. A request is its kind, time in ms, length, file; an answer is a byte
/// that says what follows, its length, and that. Numbers are little-endian.
/// </summary>
public static class ReadingWire
{
    private const byte IsDrawing = 1;
    private const byte IsRefusal = 2;
    private const byte IsFace = 3;
    private const int HeadBytes = 9;
    private const int LongestName = 60;

    /// <summary>A drawing of the largest size that is read takes about half of this.</summary>
    private const int LongestAnswer = 256 * 1024 * 1024;

    /// <summary>Sends a file to the reading process.</summary>
    public static async Task WriteRequestAsync(Stream pipe, ReadingRequest request, CancellationToken stop)
    {
        var head = new byte[HeadBytes];
        head[0] = (byte)request.Kind;
        BinaryPrimitives.WriteInt32LittleEndian(head.AsSpan(1), (int)request.Time.TotalMilliseconds);
        BinaryPrimitives.WriteInt32LittleEndian(head.AsSpan(5), request.File.Length);
        await pipe.WriteAsync(head, stop);
        await pipe.WriteAsync(request.File, stop);
        await pipe.FlushAsync(stop);
    }

    /// <summary>The next file; null at the end of the pipe.</summary>
    public static ReadingRequest? ReadRequest(Stream pipe)
    {
        Span<byte> head = stackalloc byte[HeadBytes];
        if (pipe.ReadAtLeast(head, HeadBytes, throwOnEndOfStream: false) < HeadBytes) return null;
        var file = new byte[BinaryPrimitives.ReadInt32LittleEndian(head[5..])];
        pipe.ReadExactly(file);
        return new ReadingRequest((ReadingKind)head[0], file, TimeSpan.FromMilliseconds(BinaryPrimitives.ReadInt32LittleEndian(head[1..])));
    }

    public static void WriteDrawing(Stream pipe, Drawing drawing) => Write(pipe, IsDrawing, w => DrawingWire.Write(w, drawing));

    public static void WriteFace(Stream pipe, FaceFacts facts) => Write(pipe, IsFace, w =>
    {
        w.Write(facts.Name);
        w.Write(facts.IsStroke);
    });

    public static void WriteRefusal(Stream pipe, ReadRefused refused) => Write(pipe, IsRefusal, w =>
    {
        w.Write(refused.Code);
        w.Write(refused.Message);
    });

    private static void Write(Stream pipe, byte kind, Action<BinaryWriter> write)
    {
        using var body = new MemoryStream();
        using (var writer = new BinaryWriter(body, Encoding.UTF8, leaveOpen: true)) write(writer);
        Span<byte> head = stackalloc byte[5];
        head[0] = kind;
        BinaryPrimitives.WriteInt32LittleEndian(head[1..], (int)body.Length);
        pipe.Write(head);
        body.Position = 0;
        body.CopyTo(pipe);
    }

    /// <summary>What a face that was asked for is. It comes of a process that a hostile file may have taken over, and is trusted no more than a file.</summary>
    /// <inheritdoc cref="ReadAnswerAsync"/>
    public static async Task<FaceFacts> ReadFaceAsync(Stream pipe, CancellationToken stop)
    {
        using var reader = await BodyAsync(pipe, IsFace, stop);
        return new FaceFacts(ShownText.Clean(reader.ReadString(), LongestName), reader.ReadBoolean());
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
