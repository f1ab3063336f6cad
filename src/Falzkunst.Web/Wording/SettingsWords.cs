using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Projects;

namespace Falzkunst.Web.Wording;

/// <summary>How lines will run, in a short sentence.</summary>
public static class SettingsWords
{
    /// <summary>The settings of a stock for an operation, with what differs along these lines.</summary>
    public static string For(Stock? stock, Operation operation, LineSettings? line)
    {
        if (operation.ToolFor() is not { } tool) return operation == Operation.Print ? "Printed, never cut." : "Never produced.";
        if (line?.LeftOut == true) return "Left out: no tool runs it this time.";
        if (stock is null) return "Give the piece a stock.";
        var settings = stock.SettingsFor(tool);
        var own = line?.Tool;
        return string.Create(CultureInfo.InvariantCulture,
            $"{(own is null ? stock.Name : "Its own settings")}: {ToolWords.Describe(own?.Over(settings) ?? settings)}, {own?.SpeedMmPerSecond ?? settings.SpeedMmPerSecond:0} mm/s");
    }

    /// <summary>The same where there is room for a few words only.</summary>
    public static string Brief(Stock? stock, Operation operation, LineSettings? line)
    {
        if (operation.ToolFor() is not { } tool) return operation == Operation.Print ? "printed, never cut" : "never produced";
        if (line?.LeftOut == true) return "left out of this run";
        if (stock is null) return "no stock yet";
        return ToolWords.Describe(line?.Tool?.Over(stock.SettingsFor(tool)) ?? stock.SettingsFor(tool));
    }

    /// <summary>How far scores keep from cuts, or that there is no room for them.</summary>
    public static string ForScores(
        LineKind kind, IReadOnlyDictionary<string, ImmutableArray<Core.Geometry.Path>> scores, double clearance, Units units)
    {
        var gone = kind.Lines.Count(id => scores[id].IsEmpty);
        if (gone > 0) return $"{Words.Count(gone, "score")} closer to a cut than {Length.Show(clearance, units)} all along: not run.";
        var run = kind.Lines.Sum(id => scores[id].Sum(p => p.Length));
        return Math.Abs(run - kind.LengthMm) < 0.005
            ? $"Keeps {Length.Show(clearance, units)} from every cut."
            : $"Stops {Length.Show(clearance, units)} short of cuts: {Length.Show(run, units)} run.";
    }
}
