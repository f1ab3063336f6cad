using Falzkunst.Core.Geometry;
using Falzkunst.Core.Printing.Registration;
using Falzkunst.Core.Running;
using Falzkunst.Data.Runs;
using Falzkunst.Web.Desk;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Project;

/// <summary>Marks of a printed page found at a stop of its run.</summary>
public sealed partial class RunModel
{
    /// <summary>The marks that the present stop asks for; null where it asks for none.</summary>
    public FindMarks? MarksNow => (StepNow as Stop)?.Work.OfType<FindMarks>().FirstOrDefault();

    /// <summary>What was read last at the present stop.</summary>
    public PageReading? Reading => State is { } state ? state.ReadingAt(state.Step) : null;

    /// <summary>What was read of the side that was up before, where this is the other one.</summary>
    public PageReading? ReadingBefore => State is { } state ? state.Readings.LastOrDefault(r => r.Step < state.Step && r.Lies is not null) : null;

    /// <summary>The last reading of the run that is over or runs, with its marks; null where none was read.</summary>
    public (FindMarks Work, PageReading Reading)? Last => Run is { } run && run.State.Readings.LastOrDefault(r => r.Lies is not null) is { } read && run.Plan.Steps.ElementAtOrDefault(read.Step) is Stop stop && stop.Work.OfType<FindMarks>().FirstOrDefault() is { } work
        ? (work, read) : null;

    /// <summary>How far cut and print lie apart on the practice sheet itself, at the places that were told, once it has run.</summary>
    public IReadOnlyList<CutPlace> Truly()
    {
        if (Run is not { State.Phase: RunPhase.Done } run || Last is not { } last) return [];
        return CutToPrint.Worst(PageReader.OutlinesOf(run.Plan, last.Work), PageReader.TrulyApart(last.Work, MachineOf(run), last.Reading, MarksDesk.SeedOf(run.Id)));
    }

    /// <summary>What a place is called: its piece, and which copy where there are several.</summary>
    public string NameOf(CutPlace place) => _shownOn.Value.Made.Find(place.Piece) is { } piece ? piece.Quantity > 1 ? $"{piece.Name} {place.Copy}" : piece.Name : place.Piece;

    private Core.Catalogue.Machine MachineOf(OpenRun run) => On.Drawer.Machine(run.Machine);

    /// <summary>The machine looks at the page, as it lies or laid anew.</summary>
    /// <param name="run">The run.</param>
    /// <param name="seen">Number of the last event that the page showed.</param>
    /// <param name="trouble">What shall go wrong.</param>
    /// <param name="anew">The page is laid anew first.</param>
    /// <param name="stop">Cancels.</param>
    public Task<IActionResult> OnPostFindAsync(Guid run, int? seen, PracticeTrouble trouble, bool anew, CancellationToken stop) => ReadAsync(run, seen, (plan, state, work, machine) =>
    {
        var before = state.ReadingAt(state.Step);
        var laid = (before?.Laid ?? 1) + (anew ? 1 : 0);
        // Laid anew it is the same page with what was to go wrong with it.
        var goesWrong = before is not null && (anew || trouble == PracticeTrouble.Chance) ? before.Trouble : trouble;
        return PageReader.Look(plan, work, machine, MarksDesk.SeedOf(run), laid, anew ? 1 : (before?.Looked ?? 0) + 1, goesWrong);
    }, stop);

    /// <summary>The marks as somebody has touched them, mm from the mat's corner.</summary>
    public Task<IActionResult> OnPostByHandAsync(Guid run, int? seen, double[] x, double[] y, CancellationToken stop) => ReadAsync(run, seen, (plan, state, work, machine) =>
    {
        var before = state.ReadingAt(state.Step) ?? throw new NotDone("Let the machine look at the page first.");
        try
        {
            return PageReader.ByHand(plan, work, machine, [.. x.Zip(y, (a, b) => new Point(a, b))], before.Laid, before.Looked, before.Trouble);
        }
        catch (ArgumentException)
        {
            throw new NotDone("No printer has put three marks so. Touch the outer corner of each L again.");
        }
    }, stop);

    private async Task<IActionResult> ReadAsync(Guid run, int? seen, Func<RunPlan, RunState, FindMarks, Core.Catalogue.Machine, PageReading> look, CancellationToken stop)
    {
        if (await runs.OpenAsync(ProjectDesk.Owner, run, stop) is not { } open) return NotFound();
        var machine = MachineOf(open);
        try
        {
            return await CommandAsync(run, seen ?? -1, (plan, state) => PracticeMachine.Read(plan, state, work => look(plan, state, work, machine)), stop);
        }
        catch (NotDone e)
        {
            Notice = e.Message;
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            return await RegionsAsync(stop);
        }
    }

    /// <summary>A part of the machine's picture round the place where a mark should be.</summary>
    /// <param name="run">The run.</param>
    /// <param name="corner">Which mark.</param>
    /// <param name="stop">Cancels.</param>
    public async Task<IActionResult> OnGetMarkAsync(Guid run, MarkCorner corner, CancellationToken stop)
    {
        if (await runs.OpenAsync(ProjectDesk.Owner, run, stop) is not { } open || open.State.Readings.LastOrDefault() is not { } reading
            || open.Plan.Steps.ElementAtOrDefault(reading.Step) is not Stop at || at.Work.OfType<FindMarks>().FirstOrDefault() is not { } work) return NotFound();
        if (PageReader.LayoutOf(work).Marks.FirstOrDefault(m => m.Corner == corner) is not { } mark) return NotFound();
        var picture = PageReader.Picture(open.Plan, work, MachineOf(open), MarksDesk.SeedOf(open.Id), reading.Laid, reading.Looked, reading.Trouble);
        Response.Headers.CacheControl = "private, max-age=600";
        return File(MarksDesk.Cut(picture, PracticeReader.OnPicture.Apply(MarksDesk.CropOf(mark).Min), MarksDesk.CropMm * PracticeReader.DotsPerMm), "image/png");
    }
}
