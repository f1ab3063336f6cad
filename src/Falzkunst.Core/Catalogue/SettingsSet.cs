using System.Collections.Immutable;

namespace Falzkunst.Core.Catalogue;

/// <summary>Where a setting came from.</summary>
/// <param name="From">In words, such as "typed here" or "a line of Tram body, Night tram invitation".</param>
/// <param name="At">When it was set; kept to the second.</param>
public sealed record SettingNote(string From, DateTimeOffset At)
{
    public DateTimeOffset At { get; } = new(At.UtcTicks - At.UtcTicks % TimeSpan.TicksPerSecond, TimeSpan.Zero);
}

/// <summary>Settings of a stock for one kind of work.</summary>
/// <param name="Name">Such as "usual", "intricate", "thick".</param>
/// <param name="Settings">One for each tool that is noted; for others careful ones are taken.</param>
/// <param name="Notes">Where they came from, by tool; none for what shipped.</param>
public sealed record SettingsSet(string Name, ImmutableArray<ToolSettings> Settings, ImmutableSortedDictionary<Tool, SettingNote> Notes)
{
    /// <summary>The settings of a tool; null where none are noted.</summary>
    public ToolSettings? For(Tool tool) => Settings.FirstOrDefault(s => s.Tool == tool);

    /// <summary>The set with settings of a tool noted anew.</summary>
    public SettingsSet Keeping(ToolSettings settings, SettingNote note) => this with
    {
        Settings = For(settings.Tool) is { } former ? Settings.Replace(former, settings) : Settings.Add(settings),
        Notes = Notes.SetItem(settings.Tool, note),
    };

    /// <summary>The set with nothing noted of a tool, so that careful settings are taken.</summary>
    public SettingsSet Without(Tool tool) => this with { Settings = Settings.RemoveAll(s => s.Tool == tool), Notes = Notes.Remove(tool) };
}
