namespace Falzkunst.Data.Runs;

/// <summary>A machine carries one sheet at a time.</summary>
/// <param name="sheet">Title of the sheet that it carries; null where that is not known.</param>
/// <param name="project">Name of that sheet's project.</param>
public sealed class MachineBusy(string? sheet, string? project) : Exception($"The machine carries {sheet ?? "another sheet"}.")
{
    public string? Sheet { get; } = sheet;
    public string? Project { get; } = project;
}
