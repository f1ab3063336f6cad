using System.Diagnostics;
using System.Globalization;
using System.Runtime.InteropServices;
using Falzkunst.Formats.Wire;

namespace Falzkunst.Web.Reading;

/// <summary>A process that reads one file after the other, with a limit on its memory. Ended for good when it is let go.</summary>
internal sealed class ReadingProcess : IDisposable
{
    /// <summary>What its garbage-collected heap may take, bytes; the largest drawings that are read stay below 300 MB, a picture of 60 megapixels that has to be turned takes 480.</summary>
    private const long HeapBytes = 640L * 1024 * 1024;

    /// <summary>What it may take altogether before it is ended, bytes.</summary>
    private const long MostBytes = 850L * 1024 * 1024;

    /// <summary>A process that has grown beyond this is not kept for another file, bytes.</summary>
    private const long KeptBytes = 250L * 1024 * 1024;

    private static readonly string Reader = Path.Combine(AppContext.BaseDirectory, "Falzkunst.Reader.dll");

    /// <summary>The folder of the project's secrets, told by what starts the server; null where it is not there.</summary>
    private static readonly string? Hidden = Environment.GetEnvironmentVariable("FALZKUNST_SECRETS") is { Length: > 0 } folder && Directory.Exists(folder) ? folder : null;

    /// <summary>What it is walled off by.</summary>
    public static readonly Lazy<ReadingWalls> Walls = new(() => ReadingWalls.Of(Reader, Hidden));

    private readonly Process _process;

    private ReadingProcess(Process process) => _process = process;

    public static ReadingProcess Start()
    {
        var walls = Walls.Value;
        string[] command = [.. walls.Prefix, DotNet(), Reader];
        var start = new ProcessStartInfo(command[0], command[1..])
        {
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            UseShellExecute = false,
        };
        // It needs nothing of what the server knows, least of all how to reach the database.
        start.Environment.Clear();
        if (Hidden is { } hidden) start.Environment[ReadingWalls.HiddenFolder] = hidden;
        start.Environment["DOTNET_EnableDiagnostics"] = "0";
        start.Environment["DOTNET_GCHeapHardLimit"] = HeapBytes.ToString("X", CultureInfo.InvariantCulture);
        start.Environment["DOTNET_gcServer"] = "0";
        // It lives for one file or a few: what watches code to make it quick later costs a quarter of the time for a large drawing.
        start.Environment["DOTNET_TieredPGO"] = "0";
        start.Environment["DOTNET_gcConcurrent"] = "0";
        start.Environment["DOTNET_DbgEnableMiniDump"] = "0";
        return new ReadingProcess(Process.Start(start) ?? throw new InvalidOperationException("The reading process did not start."));
    }

    /// <summary>The dotnet of the runtime that this process runs on.</summary>
    private static string DotNet() => Path.GetFullPath(Path.Combine(RuntimeEnvironment.GetRuntimeDirectory(), "..", "..", "..", "dotnet"));

    /// <summary>It can be given another file.</summary>
    public bool IsFit
    {
        get
        {
            _process.Refresh();
            return !_process.HasExited && _process.WorkingSet64 < KeptBytes;
        }
    }

    /// <summary>Sends a file and waits for what comes of it.</summary>
    public async Task<T> AskAsync<T>(ReadingRequest request, Func<Stream, CancellationToken, Task<T>> answer, CancellationToken stop)
    {
        await ReadingWire.WriteRequestAsync(_process.StandardInput.BaseStream, request, stop);
        return await answer(_process.StandardOutput.BaseStream, stop);
    }

    /// <summary>How long the processor has worked for it, all files together.</summary>
    public TimeSpan Worked
    {
        get
        {
            try
            {
                _process.Refresh();
                return _process.HasExited ? TimeSpan.Zero : _process.TotalProcessorTime;
            }
            catch (InvalidOperationException)
            {
                // It has ended in between; whoever waits for its answer hears so.
                return TimeSpan.Zero;
            }
        }
    }

    /// <summary>It takes more memory than it may.</summary>
    public bool IsTooLarge
    {
        get
        {
            _process.Refresh();
            return !_process.HasExited && _process.WorkingSet64 > MostBytes;
        }
    }

    public void Dispose()
    {
        try
        {
            _process.Kill();
        }
        catch (InvalidOperationException)
        {
            // It has ended by itself.
        }
        _process.Dispose();
    }
}
