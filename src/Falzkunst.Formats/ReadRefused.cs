namespace Falzkunst.Formats;

/// <summary>A file that is not read, with a stable code and a sentence that says what is wrong and what to do.</summary>
public sealed class ReadRefused(string code, string message) : Exception(message)
{
    public string Code { get; } = code;
}
