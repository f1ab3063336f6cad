using System.Collections.Immutable;
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

    /// <summary>Foil reaches so far beyond the lines on all sides, mm.</summary>
    private const double FoilEdgeMm = 6;

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
        var settings = groups.Select((g, i) => SettingsFor(g.Key, tools[i].Tool, stock)).ToList();
        steps.Add(Loading(sheet, isTurned, machine, settings, tools, holders));
        var head = new Point(0, sheetHeight);
        for (var i = 0; i < groups.Count; i++)
        {
            if (i > 0 && groups[i - 1].Key.Work.FromBack && !groups[i].Key.Work.FromBack) steps.Add(new Stop(StopKind.Turn, [new TurnSheet(sheet)], StopWarning.TurningOtherWay, 0));
            if (HandsBefore(i, groups, tools, holders, machine, settings[i]) is { } stop) steps.Add(stop);
            var title = groups[i].Key.Stage.Title() + (groups[i].Key.Work.FromBack ? ", from the back" : "");
            var pass = RunPass([.. groups[i]], title, tools[i], holders[i].Holder.Name, settings[i], machine, ref head);
            steps.Add(pass);
        }
        var foilIsOn = groups.Count > 0 && groups[^1].Key.Stage == Stage.Foil;
        steps.Add(new Stop(StopKind.Unload, [.. foilIsOn ? [new PeelFoil()] : Array.Empty<HandWork>(), new LookAndUnload(sheet)], StopWarning.None, 0));
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

    private static Stop Loading(
        string sheet, bool faceDown, Machine machine, List<ToolSettings> settings, List<ToolInHand> tools, List<(Holder Holder, bool PutIn, bool AtStart)> holders)
    {
        var work = ImmutableArray.CreateBuilder<HandWork>();
        work.Add(new LayPaper(sheet, faceDown));
        for (var i = 0; i < tools.Count; i++)
        {
            if (holders[i].AtStart && tools[i].Tool != Tool.FoilTip) work.Add(PutIn(tools[i], holders[i].Holder, machine, settings[i]));
        }
        return new Stop(StopKind.LoadPaper, work.ToImmutable(), StopWarning.None, 0);
    }

    private static PutToolIn PutIn(ToolInHand tool, Holder holder, Machine machine, ToolSettings settings) =>
        new(tool.Tool, tool.Ink, tool.TipMm, machine.Holders.Length > 1 ? holder.Name : null, settings);

    private static Stop? HandsBefore(
        int i,
        List<IGrouping<PassKey, SheetLine>> groups,
        List<ToolInHand> tools,
        List<(Holder Holder, bool PutIn, bool AtStart)> holders,
        Machine machine,
        ToolSettings settings)
    {
        var work = ImmutableArray.CreateBuilder<HandWork>();
        double wait = 0;
        var foilNow = tools[i].Tool == Tool.FoilTip;
        var foilBefore = i > 0 && tools[i - 1].Tool == Tool.FoilTip;
        if (foilBefore && (!foilNow || tools[i] != tools[i - 1])) work.Add(new PeelFoil());
        if (holders[i].PutIn && (!holders[i].AtStart || foilNow)) work.Add(PutIn(tools[i], holders[i].Holder, machine, settings));
        if (foilNow && (!foilBefore || tools[i] != tools[i - 1]))
        {
            var area = groups[i].Aggregate(Box.Empty, (box, l) => box.Include(l.Path.Bounds)).Grow(FoilEdgeMm);
            work.Add(new TapeFoil(tools[i].Ink ?? WorkedItem.GoldFoil, area));
            wait = settings.WarmUpSeconds;
            if (wait > 0) work.Add(new WarmUp(wait));
        }
        return work.Count == 0 ? null : new Stop(StopKind.Tools, work.ToImmutable(), StopWarning.Unloading, wait) { Next = groups[i].Key.Stage };
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
            var strokes = line.Operation == Operation.Perforate ? Dashes.Split(path, dashes.DashMm, dashes.GapMm) : [path];
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
