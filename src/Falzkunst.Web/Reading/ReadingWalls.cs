using System.Collections.Immutable;
using System.Diagnostics;
using System.Runtime.InteropServices;

namespace Falzkunst.Web.Reading;

/// <summary>
/// What stands between the process that reads uploads and all else on the machine, by means of Debian's util-linux: a user of its own
/// where root serves, no privileges that could be got back, no network, no file of secrets, limits on files and memory dumps. Which of
/// them the machine gives is tried once.
/// </summary>
/// <param name="Prefix">What the reader is started by; empty for nothing.</param>
/// <param name="Lacking">What the machine does not give, in words; empty where all stands.</param>
public sealed record ReadingWalls(ImmutableArray<string> Prefix, ImmutableArray<string> Lacking)
{
    /// <summary>A user whom nothing belongs to and who needs no account.</summary>
    private const string Nobody = "61777";

    /// <summary>The folder that is hidden from the reader, told to what starts it.</summary>
    public const string HiddenFolder = "FALZKUNST_HIDDEN";

    private const string Unshare = "/usr/bin/unshare", SetPriv = "/usr/bin/setpriv", Limits = "/usr/bin/prlimit", Shell = "/bin/sh";

    private static readonly ImmutableArray<string> NoPrivileges = [SetPriv, "--no-new-privs", "--inh-caps=-all", "--bounding-set=-all"];
    private static readonly ImmutableArray<string> Limited = [Limits, "--core=0", "--nofile=512"];

    /// <summary>Root's own means; and those of a namespace in which a user is root and nobody else is there.</summary>
    private static readonly ImmutableArray<string>
        ByRoot = [Unshare, "--net", "--ipc", .. NoPrivileges, $"--reuid={Nobody}", $"--regid={Nobody}", "--clear-groups", .. Limited],
        ByNamespace = [Unshare, "--map-root-user", "--net", "--ipc", "--mount", Shell, "-c", $"[ -z \"${HiddenFolder}\" ] || /usr/bin/mount -t tmpfs -o size=4k none \"${HiddenFolder}\" || exit 1; exec \"$@\"", "walls", .. NoPrivileges, .. Limited],
        ByPrivileges = [.. NoPrivileges[..2], .. Limited];

    /// <summary>The walls of this machine.</summary>
    /// <param name="reader">A file that must be readable behind them.</param>
    /// <param name="hidden">The folder of secrets; null for none.</param>
    public static ReadingWalls Of(string reader, string? hidden)
    {
        if (Environment.IsPrivilegedProcess && Stands(ByRoot, reader, hidden)) return new(ByRoot, []);
        if (!Environment.IsPrivilegedProcess && Stands(ByNamespace, reader, hidden)) return new(ByNamespace, []);
        var user = Environment.IsPrivilegedProcess ? "it reads as root: put Falzkunst where every user may read it" : "namespaces of a user's own are not allowed here, so that it has a network and reads what you may read";
        return Stands(ByPrivileges, reader, hidden) ? new(ByPrivileges, [user]) : new([], [user, "util-linux (setpriv, prlimit) is not installed, so that it has no limits but its memory's"]);
    }

    private static bool Stands(ImmutableArray<string> prefix, string reader, string? hidden)
    {
        if (!File.Exists(prefix[0])) return false;
        var start = new ProcessStartInfo(prefix[0], [.. prefix.Skip(1), "/usr/bin/test", "-r", reader]) { RedirectStandardError = true };
        start.Environment.Clear();
        if (hidden is not null) start.Environment[HiddenFolder] = hidden;
        using var tried = Process.Start(start);
        if (tried is null) return false;
        tried.StandardError.ReadToEnd();
        tried.WaitForExit();
        return tried.ExitCode == 0;
    }

    /// <summary>Nobody but root looks into this process from now on, into what it was started with least of all.</summary>
    public static void HideThisProcess()
    {
        if (OperatingSystem.IsLinux()) _ = ProcessControl(SetDumpable, 0, 0, 0, 0);
    }

    private const int SetDumpable = 4;

    [DllImport("libc", EntryPoint = "prctl")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int ProcessControl(int option, nuint value, nuint third, nuint fourth, nuint fifth);
}
