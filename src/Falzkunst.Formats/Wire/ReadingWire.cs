using System.Buffers.Binary;
using System.IO;
using System.Text;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;

namespace Falzkunst.Formats.Wire;

/// <summary>A file to be read, and how long that may take.</summary>
public sealed record ReadingRequest(byte[] File, TimeSpan Time);

/// <summary>
/// What server and reading process say to each other over a pipe. A request is time in ms, length, file; an answer is a byte
/// that says what follows, its length, and that. Numbers are little-endian.
/// </summary>
public static class ReadingWire
{
    private const byte IsDrawing = 1;
    private const byte IsRefusal = 2;

    /// <summary>A drawing of the largest size that is read takes about half of this.</summary>
    private const int LongestAnswer = 256 * 1024 * 1024;

    /// <summary>Sends a file to the reading process.</summary>
    public static async Task WriteRequestAsync(Stream pipe, ReadingRequest request, CancellationToken stop)
    {
        var head = new byte[8];
        BinaryPrimitives.WriteInt32LittleEndian(head, (int)request.Time.TotalMilliseconds);
        BinaryPrimitives.WriteInt32LittleEndian(head.AsSpan(4), request.File.Length);
        await pipe.WriteAsync(head, stop);
        await pipe.WriteAsync(request.File, stop);
        await pipe.FlushAsync(stop);
    }

    /// <summary>The next file; null at the end of the pipe.</summary>
    public static ReadingRequest? ReadRequest(Stream pipe)
    {
        Span<byte> head = stackalloc byte[8];
        if (pipe.ReadAtLeast(head, 8, throwOnEndOfStream: false) < 8) return null;
        var file = new byte[BinaryPrimitives.ReadInt32LittleEndian(head[4..])];
        pipe.ReadExactly(file);
        return new ReadingRequest(file, TimeSpan.FromMilliseconds(BinaryPrimitives.ReadInt32LittleEndian(head)));
    }

    public static void WriteDrawing(Stream pipe, Drawing drawing) => Write(pipe, IsDrawing, w => DrawingWire.Write(w, drawing));

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

    /// <summary>The answer to a request. It comes of a process that a hostile file may have taken over, and is trusted no more than a file.</summary>
    /// <exception cref="ReadRefused">The file was refused.</exception>
    /// <exception cref="InvalidDataException">It is no answer.</exception>
    /// <exception cref="EndOfStreamException">The process has ended.</exception>
    public static async Task<Drawing> ReadAnswerAsync(Stream pipe, CancellationToken stop)
    {
        var head = new byte[5];
        await pipe.ReadExactlyAsync(head, stop);
        var length = BinaryPrimitives.ReadInt32LittleEndian(head.AsSpan(1));
        if (length is < 0 or > LongestAnswer || head[0] is not (IsDrawing or IsRefusal)) throw new InvalidDataException("That is no answer of the reading process.");
        var body = new byte[length];
        await pipe.ReadExactlyAsync(body, stop);
        using var reader = new BinaryReader(new MemoryStream(body, writable: false), Encoding.UTF8);
        if (head[0] == IsDrawing) return DrawingWire.Read(reader, BudgetLimits.Reading);
        throw new ReadRefused(ShownText.Clean(reader.ReadString(), 40), ShownText.Clean(reader.ReadString(), 400));
    }
}
