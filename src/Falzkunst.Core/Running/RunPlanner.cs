using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Running;

/// <summary>Plans the run of a sheet: passes by the law of paper, short ways, and a stop wherever a hand is needed.</summary>
public static class RunPlanner
{
    /// <summary>A half cut stands out by this share of the paper and presses with this share of the force of a cut through it.</summary>
    private const double HalfCutDepth = 0.5;
    private const double HalfCutForce = 0.6;

    /// <summary>Plans a sheet. What is worked from the back runs first, with the sheet face down, and then it is turned over.</summary>
    /// <param name="lines">The lines on the sheet, as seen from the front.</param>
    /// <param name="sheet">What to load, in words, such as "Slate 220, sheet 1 (12 inch square)".</param>
    /// <param name="sheetHeight">Height of the sheet, mm; the head rests at its lower left corner.</param>
    /// <param name="sheetWidth">Width of the sheet, mm; face down, left and right change places.</param>
    /// <param name="machine">The machine.</param>
    /// <param name="stock">Where the settings come from.</param>
    /// <exception cref="PlanRefused">The machine lacks a holder that a tool fits.</exception>
    public static RunPlan Plan(IReadOnlyList<SheetLine> lines, string sheet, double sheetWidth, double sheetHeight, Machine machine, Stock stock)
    {
        var faceDown = Affine.Scale(-1, 1).Then(Affine.Move(sheetWidth, 0));
        var groups = lines
            .Select(l => l.Work.FromBack ? l with { Path = l.Path.Map(faceDown) } : l)
            .GroupBy(l => new PassKey(l.Stage, l.Operation, l.Ink, l.Work))
            .OrderByDescending(g => g.Key.Work.FromBack)
            .ThenBy(g => g.Key.Stage)
            .ThenBy(g => g.Key.Ink, StringComparer.Ordinal)
            .ThenBy(g => g.Key.Work.TipMm)
            .ToList();
        var tools = groups.Select(g => new ToolInHand(g.Key.Operation.ToolFor()!.Value, g.Key.Ink, g.Key.Work.TipMm)).ToList();
        var isTurned = groups.Count > 0 && groups[0].Key.Work.FromBack;
        var holders = ToolChangePlan.For(tools, machine);

        var steps = ImmutableArray.CreateBuilder<RunStep>();
        steps.Add(Loading(sheet, isTurned, machine, stock, tools, holders));
        var head = new Point(0, sheetHeight);
        for (var i = 0; i < groups.Count; i++)
        {
            if (i > 0 && groups[i - 1].Key.Work.FromBack && !groups[i].Key.Work.FromBack) steps.Add(TurningOver(sheet));
            if (HandsBefore(i, groups, tools, holders, machine, stock) is { } stop) steps.Add(stop);
            var settings = SettingsFor(groups[i].Key, tools[i].Tool, stock);
            var title = groups[i].Key.Stage.Title() + (groups[i].Key.Work.FromBack ? ", from the back" : "");
            var pass = RunPass([.. groups[i]], title, tools[i], holders[i].Holder.Name, settings, machine, ref head);
            steps.Add(pass);
        }
        steps.Add(Unloading(sheet, groups.Count > 0 && groups[^1].Key.Stage == Stage.Foil));
        return new RunPlan(steps.ToImmutable(), holders.Count(h => h is { PutIn: true, AtStart: false }));
    }

    /// <summary>The lines of one key run in one pass.</summary>
    private readonly record struct PassKey(Stage Stage, Operation Operation, string? Ink, LineWork Work);

    private static ToolSettings SettingsFor(PassKey key, Tool tool, Stock stock)
    {
        var settings = stock.SettingsFor(tool);
        if (key.Work.HalfCut)
        {
            settings = settings with
            {
                BladeOutMm = Math.Round(stock.ThicknessMm * HalfCutDepth, 2),
                ForceGrams = (int)Math.Round(settings.ForceGrams * HalfCutForce),
                Times = 1,
            };
        }
        return key.Work.Settings?.Over(settings) ?? settings;
    }

    private static Stop TurningOver(string sheet) => new(
        StopKind.Turn, "Turn the sheet over",
        [$"Take {sheet} off the mat, turn it over left to right like the page of a book, and lay it face up in the same corner."],
        "Turn it about its upright edge only; turned the other way, all that follows lands upside down.", 0);

    private static Stop Loading(
        string sheet, bool faceDown, Machine machine, Stock stock, List<ToolInHand> tools, List<(Holder Holder, bool PutIn, bool AtStart)> holders)
    {
        var actions = ImmutableArray.CreateBuilder<string>();
        actions.Add($"Lay {sheet} on the mat{(faceDown ? ", face down" : "")}, upper left corner in the mat's corner, and load the mat.");
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
        List<IGrouping<PassKey, SheetLine>> groups,
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
        var dashes = lines[0].Work.Dashes ?? PerforationDashes.Usual;
        var run = ImmutableArray.CreateBuilder<PassLine>(order.Count);
        double draw = 0, travel = 0, seconds = 0;
        foreach (var (index, path) in order)
        {
            var line = lines[index];
            var strokes = line.Operation == Operation.Perforate ? Dashes.Of(path, dashes.DashMm, dashes.GapMm) : [path];
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
        return new Pass(title, lines[0].Operation, tool.Tool, tool.Ink, holder, settings, run.ToImmutable(), draw, travel, seconds, lines[0].Work.FromBack);
    }
}
