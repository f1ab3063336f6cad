using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Running;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Runs;
using Falzkunst.Web.Desk;
using Falzkunst.Web.LightTable;
using Falzkunst.Web.Wording;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Project;

/// <summary>The run of each sheet, planned and carried out.</summary>
public sealed partial class RunModel(ProjectDesk desk, ProjectStore projects, RunStore runs, PlanCache plans, DrawerDesk drawer) : CommandPage(desk)
{
    public override Station Station => Station.Run;
    public override string? OverPartial => "_RunOver";
    public override bool SceneFollows => true;
    public override string EmptyTable => "Here each sheet is carried out, stop by stop. There are no sheets yet; put the pieces on sheets first.";

    /// <summary>Speeds of the practice machine to choose from.</summary>
    public static readonly IReadOnlyList<int> SpeedUps = [1, 8, 60, 400];

    private const int FirstSpeedUp = 60;

    /// <summary>A sheet in the ledger: its plan now, and its newest run if it has had one.</summary>
    public sealed record SheetRow(string Id, string Title, double? Seconds, RunCard? Run, bool IsInLayout, string? Refusal);

    public IReadOnlyList<SheetRow> Rows { get; private set; } = [];
    public SheetRow? ShownRow { get; private set; }
    public OpenRun? Run { get; private set; }
    public IReadOnlyList<(RunHappening What, DateTimeOffset At)> Happened { get; private set; } = [];

    /// <summary>The plan on show: the frozen one of a run, else that of the sheet as it is now.</summary>
    public RunPlan? Plan { get; private set; }

    /// <summary>The sheet is laid out on the project as it was when the run began.</summary>
    private SheetLayout? _sheet;
    private OnDesk _shownOn = null!;

    public override string? ShownKey => ShownRow is null ? null : TouchedLines.Count > 0 && MayRunAgain ? $"{ShownRow.Id}:{string.Join(',', TouchedLines)}" : ShownRow.Id;

    public bool LayoutIsCurrent => Value.SheetsAreCurrent;

    /// <summary>The state of the run on show; null where none has begun.</summary>
    public RunState? State => Run?.State;

    public RunStep? StepNow => Run is { } run && run.State.Step < run.Plan.Steps.Length ? run.Plan.Steps[run.State.Step] : null;

    /// <summary>The next moment that needs a hand, and machine seconds until then.</summary>
    public (Stop Stop, double Seconds)? NextStop
    {
        get
        {
            if (Run is not { } run || run.State.IsOver) return null;
            var seconds = StepNow is Pass pass
                ? pass.Lines.Skip(run.State.Line).Sum(l => l.Seconds) - run.State.SecondsInto
                : 0;
            for (var i = run.State.Step + 1; i < run.Plan.Steps.Length; i++)
            {
                if (run.Plan.Steps[i] is Stop stop) return (stop, Math.Max(0, seconds));
                seconds += run.Plan.Steps[i].Seconds;
            }
            return null;
        }
    }

    /// <summary>Where the head is on the picture, which shows the sheet's face also while the sheet lies on it.</summary>
    public Point? Head => Run is not { } run ? null
        : StepNow is Pass { FaceDown: true } && _sheet is not null && HeadPosition.At(run.Plan, run.State) is { } behind
            ? new Point(_sheet.Width - behind.X, behind.Y)
            : HeadPosition.At(run.Plan, run.State);

    protected override async Task LoadAsync(CancellationToken stop)
    {
        var cards = await runs.ListAsync(ProjectDesk.Owner, Id, stop);
        var newest = cards.DistinctBy(c => c.SheetId).ToDictionary(c => c.SheetId);
        // Plain pages are trimmed by hand and have no run.
        var layout = Value.SheetsAreCurrent ? Value.Sheets!.Sheets.Where(s => Value.SetOut.Printing.GetValueOrDefault(s.Stock) is not { IsCut: false }) : [];
        var rows = layout.Select(sheet =>
        {
            var (plan, refusal) = plans.Get(On, sheet);
            return new SheetRow(sheet.Id, TitleOf(sheet), plan?.Seconds, newest.GetValueOrDefault(sheet.Id), true, refusal);
        }).ToList();
        rows.AddRange(newest.Values.Where(c => rows.All(r => r.Id != c.SheetId)).Select(c => new SheetRow(c.SheetId, c.SheetTitle, null, c, false, null)));
        Rows = rows;
        ShownRow = rows.Find(r => r.Id == Selected?.Split(':')[0]) ?? rows.Find(r => r.Run is { IsOver: false }) ?? rows.FirstOrDefault();
        _shownOn = On;
        if (ShownRow is null) return;
        if (ShownRow.Run is { } card && await runs.OpenAsync(ProjectDesk.Owner, card.Id, stop) is { } run)
        {
            Run = run;
            Plan = run.Plan;
            Happened = await runs.EventsAsync(ProjectDesk.Owner, run.Id, stop);
            var value = run.Revision == On.Project.Head ? Value : await projects.RevisionAsync(ProjectDesk.Owner, Id, run.Revision, stop);
            if (value is not null) _shownOn = On with { Project = On.Project with { Value = value } };
        }
        _sheet = _shownOn.Value.Sheets?.Find(ShownRow.Id);
        if (Plan is null && _sheet is not null) Plan = plans.Get(On, _sheet).Plan;
    }

    protected override Scene BuildScene() =>
        _sheet is null || Plan is null ? SceneBuilder.Sheets(On, []) : SceneBuilder.Run(_shownOn, _sheet, Plan);

    /// <summary>Where the run stands, asked for several times a second.</summary>
    public async Task<IActionResult> OnGetStatusAsync(CancellationToken stop)
    {
        await LoadAsync(stop);
        return Partial("_RunStatus", this);
    }

    public Task<IActionResult> OnPostBeginAsync(string sheet, CancellationToken stop) => ActAsync(async () =>
    {
        On.Project.DemandSeen(SeenHead);
        if (!LayoutIsCurrent || Value.Sheets!.Find(sheet) is not { } layout)
            throw new NotDone("The sheets have changed. Put the pieces on sheets again, then begin.");
        var (plan, refusal) = plans.Get(On, layout);
        if (plan is null) throw new NotDone(refusal!);
        await BeginAsync(layout, plan, (layout.Stock, layout.SizeName), stop);
    }, stop);

    private async Task BeginAsync(SheetLayout layout, RunPlan plan, (string Stock, string Sheet)? takes, CancellationToken stop)
    {
        try
        {
            // Begun on what the page showed, which is looked at once more under the project's lock.
            await runs.BeginAsync(ProjectDesk.Owner, Id, SeenHead, layout.Id, TitleOf(layout), Value.SetOut.Machine, plan, FirstSpeedUp, stop, takes);
        }
        catch (MachineBusy busy)
        {
            var carried = busy.Carried;
            throw new NotDone($"The practice machine still carries {carried?.Title ?? "another sheet"}{(carried is null || carried.ProjectId == Id ? "" : $" of “{carried.Project}”")}. Finish or stop that run first.")
            {
                Leads = carried is null ? null : new("Go to that run", Url.Page("/Project/Run/Run", new { id = carried.ProjectId, at = carried.Sheet })!),
            };
        }
    }

    /// <summary>The run on show is over and its sheet lies there as it was, so that parts of it may run again.</summary>
    public bool MayRunAgain => Run is { State.IsOver: true } && ShownRow is { IsInLayout: true } && _sheet is not null && Value.Sheets?.Find(ShownRow.Id) == _sheet;

    /// <summary>Lines of the shown sheet that were touched on the picture, as "p1.1/l3".</summary>
    public IReadOnlyList<string> TouchedLines => Selected?.Split(':', 2) is [_, { Length: > 0 and < LongestTouched } touched] ? touched.Split(',') : [];

    private const int LongestTouched = 20_000;

    /// <summary>A pass has touched lines; without any every pass has.</summary>
    public bool IsTouched(Pass pass) => TouchedLines.Count > 0 && pass.Lines.Any(l => TouchedLines.Contains($"{l.Piece}.{l.Copy}/{l.Line}"));

    /// <summary>Runs passes of an ended run again alone, or the touched lines of them, with the settings they had or others.</summary>
    /// <param name="sheet">Id of the sheet.</param>
    /// <param name="run">The run that is over.</param>
    /// <param name="passes">Numbers of its steps.</param>
    /// <param name="force">Another force, grams; null as it was.</param>
    /// <param name="times">Another number of times over; null as it was.</param>
    /// <param name="stop">Cancels.</param>
    public Task<IActionResult> OnPostAgainAsync(string sheet, Guid run, int[] passes, int? force, int? times, CancellationToken stop) => ActAsync(async () =>
    {
        On.Project.DemandSeen(SeenHead);
        if (!LayoutIsCurrent || Value.Sheets!.Find(sheet) is not { } layout || await runs.OpenAsync(ProjectDesk.Owner, run, stop) is not { } before || before.SheetId != sheet)
            throw new NotDone("The sheets have changed since that run. Put the pieces on sheets again, then begin.");
        var chosen = passes.Where(i => i >= 0 && i < before.Plan.Steps.Length).Select(i => before.Plan.Steps[i]).OfType<Pass>().ToList();
        if (chosen.Count == 0) throw new NotDone("Tick the passes that shall run again.");
        if (force is < 1 or > ToolSettingsChange.MostForceGrams) throw new NotDone($"A force lies between 1 and {ToolSettingsChange.MostForceGrams} g.");
        if (times is < 1 or > Working.MostTimes) throw new NotDone($"Times over lie between 1 and {Working.MostTimes}.");
        var touched = TouchedLines.ToHashSet();
        var wanted = chosen.SelectMany(p => p.Lines).Where(l => touched.Count == 0 || touched.Contains($"{l.Piece}.{l.Copy}/{l.Line}")).Select(l => (l.Piece, l.Copy, l.Line)).ToHashSet();
        if (wanted.Count == 0) throw new NotDone("None of the touched lines is in the ticked passes.");
        try
        {
            var plan = SheetPlan.For(On.PlanOf(layout) with { Again = new RunAgain(wanted, force, times) });
            await BeginAsync(layout, plan, null, stop);
        }
        catch (PlanRefused e)
        {
            throw new NotDone(RunWords.For(e));
        }
    }, stop);

    /// <summary>The stock of the sheet on show.</summary>
    public Stock? StockOnShow => _sheet is { } sheet ? On.Drawer.Stocks.FirstOrDefault(s => s.Key == sheet.Stock) : null;

    /// <summary>The stock that numbers of a pass could be kept for: the run is over, and its stock has others; null for none.</summary>
    public Stock? KeepsFor(Pass pass)
    {
        if (Run is not { State.IsOver: true } || _sheet is not { } sheet || On.Drawer.Stocks.FirstOrDefault(s => s.Key == sheet.Stock) is not { } stock) return null;
        // A half cut is made of what the stock has, and is no number to keep.
        if (pass.Settings.BladeOutMm < stock.ThicknessMm) return null;
        return Plain(pass.Settings) == Plain(stock.SettingsFor(pass.Tool)) ? null : stock;

        static ToolSettings Plain(ToolSettings s) => s with { NarrowestMm = null, TipMm = null };
    }

    /// <summary>Keeps the numbers of a pass for the stock of its sheet.</summary>
    public Task<IActionResult> OnPostKeepAsync(Guid run, int step, CancellationToken stop) => ActAsync(async () =>
    {
        await LoadAsync(stop);
        if (Run is not { } over || over.Id != run || over.Plan.Steps.ElementAtOrDefault(step) is not Pass pass || KeepsFor(pass) is not { } stock)
            throw new NotDone("That run has nothing to keep for its stock any more.");
        var now = stock.SettingsFor(pass.Tool);
        await drawer.KeepAsync(stock.Key, pass.Settings with { NarrowestMm = now.NarrowestMm, TipMm = now.TipMm }, $"from the run of {over.SheetTitle}, {On.Project.Name}", stop);
        Show((await Desk.OpenAsync(Id, stop))!);
        Notice = $"Kept for {stock.Name}: {ToolWords.Describe(pass.Settings)}. All its sheets run so from now on.";
    }, stop);

    public Task<IActionResult> OnPostConfirmAsync(Guid run, int? seen, bool anyway, CancellationToken stop) =>
        CommandAsync(run, seen ?? -1, (plan, state) => PracticeMachine.Confirm(plan, state, anyway), stop);
    public Task<IActionResult> OnPostPauseAsync(Guid run, CancellationToken stop) => CommandAsync(run, null, (_, s) => PracticeMachine.Pause(s), stop);
    public Task<IActionResult> OnPostResumeAsync(Guid run, int? seen, CancellationToken stop) => CommandAsync(run, seen ?? -1, (_, s) => PracticeMachine.Resume(s), stop);
    public Task<IActionResult> OnPostStopAsync(Guid run, CancellationToken stop) => CommandAsync(run, null, (_, s) => PracticeMachine.Stop(s), stop);

    public async Task<IActionResult> OnPostSpeedAsync(Guid run, int speed, CancellationToken stop)
    {
        if (SpeedUps.Contains(speed)) await runs.SetSpeedUpAsync(ProjectDesk.Owner, run, speed, stop);
        return await RegionsAsync(stop);
    }

    private async Task<IActionResult> CommandAsync(
        Guid run, int? seen, Func<RunPlan, RunState, (RunState, ImmutableArray<RunHappening>)> command, CancellationToken stop)
    {
        try
        {
            await runs.CommandAsync(ProjectDesk.Owner, run, seen, command, stop);
        }
        catch (CommandRefused e)
        {
            Notice = RunWords.For(e);
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        }
        return await RegionsAsync(stop);
    }

    private string TitleOf(SheetLayout sheet) =>
        On.Drawer.Stocks.FirstOrDefault(s => s.Key == sheet.Stock) is { } stock ? SheetPlan.Title(sheet, stock) : sheet.Id;
}
