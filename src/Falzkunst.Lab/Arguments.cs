using System.Globalization;

namespace Falzkunst.Lab;

/// <summary>Bad input: one line that says what is wrong and where.</summary>
public sealed class LabRefused(string message) : Exception(message);

/// <summary>What was said to a verb: a file, and options with one value each (flags have an empty one).</summary>
public sealed class Arguments(string verb, string? file, IReadOnlyDictionary<string, string> options)
{
    public string? Option(string name) => options.GetValueOrDefault(name);

    /// <summary>An option's number; null where it is not given.</summary>
    /// <exception cref="LabRefused">It is no number, or out of reach.</exception>
    public double? Number(string name, double least, double most)
    {
        if (Option(name) is not { } text) return null;
        return double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) && number >= least && number <= most
            ? number
            : throw new LabRefused(string.Create(CultureInfo.InvariantCulture, $"{name} takes a number from {least} to {most}, not “{text}”"));
    }

    public bool Has(string flag) => options.ContainsKey(flag);

    /// <summary>The bytes of the file to work on, and its path.</summary>
    public (byte[] Bytes, string Path) File()
    {
        if (string.IsNullOrEmpty(file)) throw new LabRefused($"the verb {verb} needs a file");
        return (ReadBytes(file), file);
    }

    /// <summary>Words that stand where others have a file.</summary>
    public string Words() => file ?? throw new LabRefused($"the verb {verb} needs words");

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

    public static void WriteText(string path, string text) => WriteBytes(path, new System.Text.UTF8Encoding(false).GetBytes(text));

    public static void WriteBytes(string path, byte[] bytes)
    {
        try
        {
            System.IO.File.WriteAllBytes(path, bytes);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new LabRefused($"cannot write {path}: {e.Message}");
        }
    }
}
