using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Running;

/// <summary>
/// Plans the run of a sheet. In order: mirror what is worked from the back; gather passes by the law of paper
/// (<see cref="PassOrder"/>); settings; tools to holders (<see cref="ToolChangePlan"/>); makeready, and a stop wherever a hand
/// is needed; travel order and time of each pass (<see cref="TravelOrder"/>, <see cref="HeadRun"/>).
/// </summary>
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
    /// <param name="printed">How the sheet is printed before; null where it is not, or was printed already.</param>
    /// <param name="frame">The box whose corners the marks have; null for where they usually are.</param>
    /// <exception cref="PlanRefused">The machine lacks a holder that a tool fits.</exception>
    public static RunPlan Plan(IReadOnlyList<SheetLine> lines, string sheet, double sheetWidth, double sheetHeight, Machine machine, Stock stock, PagePrinting? printed = null, Box? frame = null)
    {
        var groups = PassOrder.Group(MirrorBackWork(lines, sheetWidth));
        var tools = groups.Select(g => new ToolInHand(g.Key.Operation.ToolFor()!.Value, g.Key.Ink, g.Key.Work.TipMm)).ToList();
        var holders = ToolChangePlan.For(tools, machine);
        List<Planned> passes = [.. groups.Select((g, i) => new Planned(g, tools[i], holders[i], SettingsFor(g.Key, tools[i].Tool, stock)))];

        var steps = ImmutableArray.CreateBuilder<RunStep>();
        steps.Add(Makeready(sheet, passes, machine, printed));
        FindMarks? marks = printed?.Marks is { } m && passes.Count > 0
            ? new FindMarks(sheet, m, frame ?? m.Frame(sheetWidth, sheetHeight), sheetWidth, sheetHeight, printed.Printer, printed.BleedMm, printed.WaitOverMm ?? PagePrinting.UsualWaitOverMm) : null;
        var isFaceDown = passes is [{ Key.Work.FromBack: true }, ..];
        // Face down the marks of the face are not seen; the back has its own where it is printed.
        if (marks is not null && (!isFaceDown || printed!.Flip is not null)) steps.Add(Finding(marks with { IsBack = isFaceDown }));
        var head = new Point(0, sheetHeight);
        Planned? before = null;
        var bladeOut = new Dictionary<string, double?>(StringComparer.Ordinal);
        foreach (var pass in passes.Where(p => p.Change.AtStart).DistinctBy(p => p.Change.Holder.Name)) bladeOut[pass.Change.Holder.Name] = pass.Settings.BladeOutMm;
        foreach (var pass in passes)
        {
            if (before is { Key.Work.FromBack: true } && !pass.Key.Work.FromBack) steps.Add(new Stop(StopKind.Turn, [new TurnSheet(sheet)], StopWarning.TurningOtherWay, 0));
            if (marks is not null && before is { Key.Work.FromBack: true } && !pass.Key.Work.FromBack) steps.Add(Finding(marks));
            if (ToolStop(before, pass, machine, bladeOut) is { } stop) steps.Add(stop);
            steps.Add(RunPass(pass, machine, ref head));
            before = pass;
        }
        steps.Add(Unloading(sheet, before));
        return new RunPlan(steps.ToImmutable(), holders.Count(h => h is { PutIn: true, AtStart: false }));
    }

    /// <summary>A pass before its lines have an order.</summary>
    private sealed record Planned(IGrouping<PassKey, SheetLine> Lines, ToolInHand Tool, ToolChange Change, ToolSettings Settings)
    {
        public PassKey Key => Lines.Key;
        public bool IsFoil => Tool.Tool == Catalogue.Tool.FoilTip;
    }

    private static IEnumerable<SheetLine> MirrorBackWork(IReadOnlyList<SheetLine> lines, double sheetWidth)
    {
        var faceDown = Affine.FromBehind(sheetWidth);
        return lines.Select(l => l.Work.FromBack ? l with { Path = l.Path.Map(faceDown) } : l);
    }

    /// <summary>The stock's settings for a tool, a half cut's own share of them, and what differs along these lines.</summary>
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

    /// <summary>The paper laid and the tools put in that have a holder from the beginning; a foil tip goes in with its foil.</summary>
    private static Stop Makeready(string sheet, List<Planned> passes, Machine machine, PagePrinting? printed)
    {
        var isFaceDown = passes is [{ Key.Work.FromBack: true }, ..];
        var tools = passes.Where(p => p.Change.AtStart && !p.IsFoil).Select(p => PutIn(p, machine));
        return new Stop(StopKind.LoadPaper, [.. printed is null ? [] : new HandWork[] { new PrintPage(sheet, printed.Flip is not null) }, new LayPaper(sheet, isFaceDown), .. tools], StopWarning.None, 0);
    }

    private static Stop Finding(FindMarks marks) => new(StopKind.Marks, [marks], StopWarning.Unloading, 0);

    private static PutToolIn PutIn(Planned pass, Machine machine) => new(
        pass.Tool.Tool, pass.Tool.Ink, pass.Tool.TipMm, machine.Holders.Length > 1 ? pass.Change.Holder.Name : null, pass.Settings);

    /// <summary>What a hand does before a pass: foil off, tool in, foil on and the tip hot; null for nothing.</summary>
    private static Stop? ToolStop(Planned? before, Planned pass, Machine machine, Dictionary<string, double?> bladeOut)
    {
        var work = ImmutableArray.CreateBuilder<HandWork>();
        double wait = 0;
        var isSameFoil = before is { IsFoil: true } && pass.Tool == before.Tool;
        if (before is { IsFoil: true } && !isSameFoil) work.Add(new PeelFoil());
        // How far a blade stands out is set by hand: where it changes, the tool is seen to once more.
        var isSetAnew = pass.Settings.BladeOutMm is { } blade && bladeOut.GetValueOrDefault(pass.Change.Holder.Name) != blade;
        if ((pass.Change.PutIn && (!pass.Change.AtStart || pass.IsFoil)) || isSetAnew) work.Add(PutIn(pass, machine));
        bladeOut[pass.Change.Holder.Name] = pass.Settings.BladeOutMm;
        if (pass.IsFoil && !isSameFoil)
        {
            var area = pass.Lines.Aggregate(Box.Empty, (box, l) => box.Include(l.Path.Bounds)).Grow(FoilEdgeMm);
            work.Add(new TapeFoil(pass.Tool.Ink ?? WorkedItem.GoldFoil, area));
            wait = pass.Settings.WarmUpSeconds;
            if (wait > 0) work.Add(new WarmUp(wait));
        }
        return work.Count == 0 ? null : new Stop(StopKind.Tools, work.ToImmutable(), StopWarning.Unloading, wait) { Next = pass.Key.Stage };
    }

    private static Stop Unloading(string sheet, Planned? last)
    {
        ImmutableArray<HandWork> peel = last is { IsFoil: true } ? [new PeelFoil()] : [];
        return new Stop(StopKind.Unload, [.. peel, new LookAndUnload(sheet)], StopWarning.None, 0);
    }

    /// <summary>Travel order, and the time of each line from where the line before it ended.</summary>
    private static Pass RunPass(Planned planned, Machine machine, ref Point head)
    {
        List<SheetLine> lines = [.. planned.Lines];
        var order = TravelOrder.Arrange([.. lines.Select(l => l.Path)], head);
        var dashes = planned.Key.Work.Dashes ?? PerforationDashes.Usual;
        var run = ImmutableArray.CreateBuilder<PassLine>(order.Count);
        var done = new HeadRun(head);
        foreach (var (index, path) in order)
        {
            var line = lines[index];
            var strokes = line.Operation == Operation.Perforate ? Dashes.Split(path, dashes.DashMm, dashes.GapMm) : [path];
            var after = done.Over(strokes, planned.Settings, machine);
            run.Add(new PassLine(line.Piece, line.Copy, line.Line, strokes, after.Seconds - done.Seconds));
            done = after;
        }
        head = done.Head ?? head;
        return new Pass(
            planned.Key.Title, planned.Key.Operation, planned.Tool.Tool, planned.Tool.Ink, planned.Change.Holder.Name, planned.Settings,
            run.ToImmutable(), done.DrawMm, done.TravelMm, done.Seconds, planned.Key.Work.FromBack)
        { HalfCut = planned.Key.Work.HalfCut };
    }
}
