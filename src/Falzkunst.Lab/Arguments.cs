using System.Globalization;

namespace Falzkunst.Lab;

/// <summary>Bad input: one line that says what is wrong and where.</summary>
public sealed class LabRefused(string message) : Exception(message);

/// <summary>The words after <c>./lab</c>: a verb, a file, and options with one value each (flags have none).</summary>
public sealed class Arguments
{
    private static readonly HashSet<string> Flags = ["--knife"];
    private readonly Dictionary<string, string> _options = new(StringComparer.Ordinal);
    private readonly List<string> _plain = [];

    public Arguments(IReadOnlyList<string> args)
    {
        for (var i = 0; i < args.Count; i++)
        {
            if (!args[i].StartsWith("--", StringComparison.Ordinal)) _plain.Add(args[i]);
            else if (Flags.Contains(args[i])) _options[args[i]] = "";
            else if (i + 1 < args.Count) _options[args[i]] = args[++i];
            else throw new LabRefused($"the option {args[i]} needs a value");
        }
    }

    public string Verb => _plain.Count > 0 ? _plain[0] : "";

    public string? Option(string name) => _options.GetValueOrDefault(name);

    /// <summary>An option's number; null where it is not given.</summary>
    /// <exception cref="LabRefused">It is no number, or out of reach.</exception>
    public double? Number(string name, double least, double most)
    {
        if (Option(name) is not { } text) return null;
        return double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) && number >= least && number <= most
            ? number
            : throw new LabRefused(string.Create(CultureInfo.InvariantCulture, $"{name} takes a number from {least} to {most}, not “{text}”"));
    }

    public bool Has(string flag) => _options.ContainsKey(flag);

    /// <exception cref="LabRefused">An option was given that the verb does not know.</exception>
    public void Allow(params string[] names)
    {
        if (_options.Keys.FirstOrDefault(k => !names.Contains(k)) is { } other)
            throw new LabRefused($"the verb {Verb} has no option {other}");
        if (_plain.Count > 2) throw new LabRefused($"one file at a time; “{_plain[2]}” is one too many");
    }

    /// <summary>The bytes of the file to work on, and its path.</summary>
    public (byte[] Bytes, string Path) File()
    {
        if (_plain.Count < 2) throw new LabRefused($"the verb {Verb} needs a file");
        return (ReadBytes(_plain[1]), _plain[1]);
    }

    public static byte[] ReadBytes(string path)
    {
        try
        {
            return System.IO.File.ReadAllBytes(path);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new LabRefused($"cannot read {path}: {e.Message}");
        }
    }

    public static void WriteText(string path, string text)
    {
        try
        {
            System.IO.File.WriteAllText(path, text);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new LabRefused($"cannot write {path}: {e.Message}");
        }
    }
}
