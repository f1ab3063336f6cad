using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Running;

/// <summary>Plans the run of a sheet: passes by the law of paper, short ways, and a stop wherever a hand is needed.</summary>
public static class RunPlanner
{
    private const double PerforationDashMm = 2.0;
    private const double PerforationGapMm = 1.0;

    /// <summary>Plans a sheet.</summary>
    /// <param name="lines">The lines on the sheet.</param>
    /// <param name="sheet">What to load, in words, such as "Slate 220, sheet 1 (12 inch square)".</param>
    /// <param name="sheetHeight">Height of the sheet, mm; the head rests at its lower left corner.</param>
    /// <param name="machine">The machine.</param>
    /// <param name="stock">Where the settings come from.</param>
    /// <exception cref="PlanRefused">The machine lacks a holder that a tool fits.</exception>
    public static RunPlan Plan(IReadOnlyList<SheetLine> lines, string sheet, double sheetHeight, Machine machine, Stock stock)
    {
        var groups = lines
            .GroupBy(l => (l.Stage, l.Operation, l.Ink))
            .OrderBy(g => g.Key.Stage)
            .ThenBy(g => g.Key.Ink, StringComparer.Ordinal)
            .ToList();
        var tools = groups.Select(g => new ToolInHand(g.Key.Operation.ToolFor()!.Value, g.Key.Ink)).ToList();
        var holders = ToolChangePlan.For(tools, machine);

        var steps = ImmutableArray.CreateBuilder<RunStep>();
        steps.Add(Loading(sheet, machine, stock, tools, holders));
        var head = new Point(0, sheetHeight);
        for (var i = 0; i < groups.Count; i++)
        {
            if (HandsBefore(i, groups, tools, holders, machine, stock) is { } stop) steps.Add(stop);
            var settings = stock.SettingsFor(tools[i].Tool);
            var pass = RunPass([.. groups[i]], groups[i].Key.Stage.Title(), tools[i], holders[i].Holder.Name, settings, machine, ref head);
            steps.Add(pass);
        }
        steps.Add(Unloading(sheet, groups.Count > 0 && groups[^1].Key.Stage == Stage.Foil));
        return new RunPlan(steps.ToImmutable(), holders.Count(h => h is { PutIn: true, AtStart: false }));
    }

    private static Stop Loading(
        string sheet, Machine machine, Stock stock, List<ToolInHand> tools, List<(Holder Holder, bool PutIn, bool AtStart)> holders)
    {
        var actions = ImmutableArray.CreateBuilder<string>();
        actions.Add($"Lay {sheet} on the mat, upper left corner in the mat's corner, and load the mat.");
        for (var i = 0; i < tools.Count; i++)
        {
            if (!holders[i].AtStart || tools[i].Tool == Tool.FoilTip) continue;
            actions.Add(PutIn(tools[i], holders[i].Holder, machine.Holders.Length, stock));
        }
        return new Stop(StopKind.LoadPaper, $"Load {sheet}", actions.ToImmutable(), null, 0);
    }

    private static string PutIn(ToolInHand tool, Holder holder, int holders, Stock stock) =>
        $"Put the {tool.Name} into the {(holders > 1 ? holder.Name + " holder" : "holder")} ({ToolWords.Describe(stock.SettingsFor(tool.Tool))}).";

    private static Stop? HandsBefore(
        int i,
        List<IGrouping<(Stage Stage, Operation Operation, string? Ink), SheetLine>> groups,
        List<ToolInHand> tools,
        List<(Holder Holder, bool PutIn, bool AtStart)> holders,
        Machine machine,
        Stock stock)
    {
        var actions = ImmutableArray.CreateBuilder<string>();
        var titles = new List<string>();
        double wait = 0;
        var foilNow = tools[i].Tool == Tool.FoilTip;
        var foilBefore = i > 0 && tools[i - 1].Tool == Tool.FoilTip;
        if (foilBefore && (!foilNow || tools[i] != tools[i - 1]))
        {
            actions.Add("Peel the foil off without moving the paper on the mat, and look whether every line took.");
            titles.Add("take the foil off");
        }
        if (holders[i].PutIn && (!holders[i].AtStart || foilNow))
        {
            actions.Add(PutIn(tools[i], holders[i].Holder, machine.Holders.Length, stock));
            titles.Add($"put the {tools[i].Name} in");
        }
        if (foilNow && (!foilBefore || tools[i] != tools[i - 1]))
        {
            var area = groups[i].Aggregate(Box.Empty, (box, l) => box.Include(l.Path.Bounds)).Grow(6);
            actions.Add(string.Create(CultureInfo.InvariantCulture,
                $"Tape {ColourWords.Name(tools[i].Ink ?? Line.GoldFoil)} foil, at least {area.Width:0} × {area.Height:0} mm, taut over the marked area."));
            titles.Add("tape the foil down");
            wait = stock.SettingsFor(Tool.FoilTip).WarmUpSeconds;
            if (wait > 0) actions.Add(string.Create(CultureInfo.InvariantCulture, $"Let the tip warm up for {wait / 60:0.#} minutes."));
        }
        if (actions.Count == 0) return null;
        var title = string.Join(", ", titles);
        return new Stop(StopKind.Tools, char.ToUpperInvariant(title[0]) + title[1..], actions.ToImmutable(),
            $"Do not unload. {groups[i].Key.Stage.Title()} and all that follows run on this load.", wait);
    }

    private static Stop Unloading(string sheet, bool foilIsOn)
    {
        ImmutableArray<string> looking = foilIsOn
            ? ["Peel the foil off.", "Look at every piece while the sheet still lies on the mat, then unload."]
            : ["Look at every piece while the sheet still lies on the mat, then unload."];
        return new Stop(StopKind.Unload, $"Look, then unload {sheet}", looking, null, 0);
    }

    private static Pass RunPass(
        List<SheetLine> lines, string title, ToolInHand tool, string holder, ToolSettings settings, Machine machine, ref Point head)
    {
        var order = TravelOrder.Arrange([.. lines.Select(l => l.Path)], head);
        var speed = Math.Min(settings.SpeedMmPerSecond, machine.TopSpeed);
        var run = ImmutableArray.CreateBuilder<PassLine>(order.Count);
        double draw = 0, travel = 0, seconds = 0;
        foreach (var (index, path) in order)
        {
            var line = lines[index];
            var strokes = line.Operation == Operation.Perforate ? Dashes.Of(path, PerforationDashMm, PerforationGapMm) : [path];
            double lineSeconds = 0;
            for (var time = 0; time < settings.Times; time++)
            {
                foreach (var stroke in strokes)
                {
                    var way = head.DistanceTo(stroke.Start);
                    travel += way;
                    draw += stroke.Length;
                    lineSeconds += MotionTime.Straight(way, machine.TopSpeed, machine.Acceleration)
                        + MotionTime.Along(stroke, speed, machine.Acceleration) + 2 * machine.LiftSeconds;
                    head = stroke.IsClosed ? stroke.Start : stroke.End;
                }
            }
            seconds += lineSeconds;
            run.Add(new PassLine(line.Piece, line.Copy, line.Line, strokes, lineSeconds));
        }
        return new Pass(title, lines[0].Operation, tool.Tool, tool.Ink, holder, settings, run.ToImmutable(), draw, travel, seconds);
    }
}
