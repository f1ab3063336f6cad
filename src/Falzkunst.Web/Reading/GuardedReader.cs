using System.Collections.Concurrent;
using System.Diagnostics;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Texts;
using Falzkunst.Formats;
using Falzkunst.Formats.Fonts;
using Falzkunst.Formats.Pictures;
using Falzkunst.Formats.Wire;

namespace Falzkunst.Web.Reading;

/// <summary>
/// Reads files that came from outside in processes of their own, one of which is kept ready. What the reader's budget misses
/// costs that one file: the process is ended, and the next file gets a new one.
/// </summary>
public sealed partial class GuardedReader(ILogger<GuardedReader> log) : IDrawingReader, IFaceReader, IWordShaper, IPictureReader, IDisposable
{
    /// <summary>Files read at once; each takes a core and up to half a gigabyte for seconds.</summary>
    private const int AtOnce = 2;

    /// <summary>Processor time beyond the reader's own, for sending and for what its budget does not see.</summary>
    private static readonly TimeSpan Grace = TimeSpan.FromSeconds(0.7);

    /// <summary>A process that has worked nothing at all for so long will never answer. It is the one limit by the clock, and no file's fault.</summary>
    private static readonly TimeSpan LongestStill = TimeSpan.FromSeconds(60);

    private static readonly TimeSpan BetweenLooks = TimeSpan.FromMilliseconds(25);
    private readonly SemaphoreSlim _places = new(AtOnce);
    private readonly ConcurrentBag<ReadingProcess> _ready = [];
    private volatile bool _isOver;

    /// <summary>Starts a process before the first file comes.</summary>
    public void Warm()
    {
        if (_ready.IsEmpty && !_isOver) Keep(ReadingProcess.Start());
    }

    public Task<Drawing> ReadAsync(byte[] file, TimeSpan time, CancellationToken stop) =>
        AskAsync(new ReadingRequest(ReadingKind.Art, file, time), ReadingWire.ReadAnswerAsync, stop);

    public Task<FaceFacts> ReadFaceAsync(byte[] file, TimeSpan time, CancellationToken stop) =>
        AskAsync(new ReadingRequest(ReadingKind.Face, file, time), ReadingWire.ReadFaceAsync, stop);

    public Task<ReadPicture> ReadPictureAsync(byte[] file, TimeSpan time, CancellationToken stop) =>
        AskAsync(new ReadingRequest(ReadingKind.Picture, file, time), ReadingWire.ReadPictureAsync, stop);

    public Task<ShapedText> ShapeAsync(byte[] face, WordsToShape words, TimeSpan time, CancellationToken stop) =>
        AskAsync(new ReadingRequest(ReadingKind.Words, face, time) { Words = words }, (pipe, s) => ReadingWire.ReadShapedAsync(pipe, words.Words, s), stop);

    private async Task<T> AskAsync<T>(ReadingRequest request, Func<Stream, CancellationToken, Task<T>> answer, CancellationToken stop)
    {
        await _places.WaitAsync(stop);
        var process = Take();
        var (isFit, isEnded) = (false, false);
        // A process whose file was stopped is still at it, and reads no other.
        ReadRefused End(string code, string message)
        {
            isEnded = true;
            return Stopped(code, message, null);
        }
        try
        {
            var begun = process.Worked;
            var (worked, since) = (begun, Stopwatch.GetTimestamp());
            var reading = process.AskAsync(request, answer, stop);
            while (await Task.WhenAny(reading, Task.Delay(BetweenLooks, CancellationToken.None)) != reading)
            {
                var now = process.Worked;
                if (now - begun > request.Time + Grace) throw End("too-slow", "The file takes too long to read and was stopped. Simplify the drawing or split it into parts.");
                if (now > worked) (worked, since) = (now, Stopwatch.GetTimestamp());
                else if (Stopwatch.GetElapsedTime(since) > LongestStill) throw End("reader-still", "Reading stood still and was ended, which says nothing of the file. Bring it in once more.");
                if (process.IsTooLarge) throw End("too-much-memory", "Reading the file took too much memory and was stopped. Simplify the drawing or split it into parts.");
            }
            var read = await reading;
            isFit = true;
            return read;
        }
        catch (ReadRefused)
        {
            isFit = !isEnded;
            throw;
        }
        catch (Exception e) when (e is IOException or InvalidDataException)
        {
            throw Stopped("reader-ended", "The file broke the reading of it, which costs nothing but this file. Save it once more from the drawing program, or simplify it.", e);
        }
        finally
        {
            if (isFit && process.IsFit) Keep(process);
            else Replace(process);
            _places.Release();
        }
    }

    private ReadRefused Stopped(string code, string message, Exception? why)
    {
        Ended(log, code, why);
        return new ReadRefused(code, message);
    }

    private ReadingProcess Take()
    {
        while (_ready.TryTake(out var ready))
        {
            if (ready.IsFit) return ready;
            ready.Dispose();
        }
        return ReadingProcess.Start();
    }

    private void Replace(ReadingProcess process)
    {
        process.Dispose();
        Warm();
    }

    /// <summary>One is kept; others that were needed at the same time are let go.</summary>
    private void Keep(ReadingProcess process)
    {
        if (_isOver || !_ready.IsEmpty) process.Dispose();
        else _ready.Add(process);
    }

    public void Dispose()
    {
        _isOver = true;
        while (_ready.TryTake(out var process)) process.Dispose();
        _places.Dispose();
    }

    [LoggerMessage(LogLevel.Warning, "A reading process was ended: {Code}.")]
    private static partial void Ended(ILogger logger, string code, Exception? exception);
}
