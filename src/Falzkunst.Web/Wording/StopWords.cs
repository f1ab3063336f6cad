using System.Globalization;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Running;

namespace Falzkunst.Web.Wording;

/// <summary>What a hand does at a stop, and must not do, in words. A stop that a former state froze in words is told in those.</summary>
public static class StopWords
{
    /// <summary>What to do, in one short line.</summary>
    public static string Title(Stop stop)
    {
        if (stop.Sentence is { } told) return told.Title;
        switch (stop.Kind)
        {
            case StopKind.LoadPaper: return $"Load {stop.Work.OfType<LayPaper>().First().Sheet}";
            case StopKind.Marks: return "Find the marks";
            case StopKind.Turn: return "Turn the sheet over";
            case StopKind.Unload: return $"Look, then unload {stop.Work.OfType<LookAndUnload>().First().Sheet}";
        }
        var parts = stop.Work.Select(work => work switch
        {
            PeelFoil => "take the foil off",
            PutToolIn tool => $"put the {Name(tool)} in",
            TapeFoil => "tape the foil down",
            _ => null,
        }).OfType<string>();
        return Capital(string.Join(", ", parts));
    }

    /// <summary>Each thing to do, in order, as a sentence.</summary>
    public static IReadOnlyList<string> Actions(Stop stop) => stop.Sentence?.Actions.ToArray() ?? [.. stop.Work.Select(Action)];

    /// <summary>What must not be done; null where nothing can go wrong.</summary>
    public static string? Warning(Stop stop) => stop.Sentence is { } told ? told.Warning : stop.MustNot switch
    {
        StopWarning.Unloading => $"Do not unload. {stop.Next?.Title()} and all that follows run on this load.",
        StopWarning.TurningOtherWay => "Turn it about its upright edge only; turned the other way, all that follows lands upside down.",
        _ => null,
    };

    private static string Action(HandWork work) => work switch
    {
        PrintPage print => $"Print {print.Sheet} at 100 %{(print.BothSides ? ", both sides" : "")} (station Print), hold the printed rule against a ruler, and let it dry.",
        LayPaper lay => $"Lay {lay.Sheet} on the mat{(lay.FaceDown ? ", face down" : "")}, upper left corner in the mat's corner, and load the mat.",
        FindMarks find => $"Let the machine look for the {(find.Marks.HasFourth ? "four" : "three")} marks of {find.Sheet}{(find.IsBack ? ", back up" : "")}.",
        PutToolIn tool => $"Put the {Name(tool)} into the {(tool.Holder is { } holder ? holder + " holder" : "holder")} ({ToolWords.Describe(tool.Settings)}).",
        PeelFoil => "Peel the foil off without moving the paper on the mat, and look whether every line took.",
        TapeFoil foil => string.Create(CultureInfo.InvariantCulture, $"Tape {ColourWords.Name(foil.Ink)} foil, at least {foil.Area.Width:0} × {foil.Area.Height:0} mm, taut over the marked area."),
        WarmUp warm => string.Create(CultureInfo.InvariantCulture, $"Let the tip warm up for {warm.Seconds / 60:0.#} minutes."),
        TurnSheet turn => $"Take {turn.Sheet} off the mat, turn it over left to right like the page of a book, and lay it face up in the same corner.",
        LookAndUnload => "Look at every piece while the sheet still lies on the mat, then unload.",
        _ => throw new ArgumentOutOfRangeException(nameof(work)),
    };

    private static string Name(PutToolIn tool)
    {
        var name = tool.Tool == Tool.Pen && tool.Ink is not null ? $"{ColourWords.Name(tool.Ink)} pen" : tool.Tool.Name();
        return tool.TipMm is { } tip ? string.Create(CultureInfo.InvariantCulture, $"{name} of {tip:0.##} mm") : name;
    }

    private static string Capital(string text) => text.Length == 0 ? text : char.ToUpperInvariant(text[0]) + text[1..];
}
