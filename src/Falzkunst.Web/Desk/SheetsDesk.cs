using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Nesting.Papers;
using Falzkunst.Core.Refusals;
using Falzkunst.Data.Jobs;
using Falzkunst.Web.Jobs;

namespace Falzkunst.Web.Desk;

/// <summary>What the Sheets station asks of workers, and what it makes of their answers.</summary>
public sealed class SheetsDesk(JobStore jobs, JobDesk asking)
{
    /// <summary>Limits of time to choose from, seconds.</summary>
    public static readonly IReadOnlyList<int> TimeLimits = [10, 30, 120, 600];

    private const int UsualSeconds = 30;

    /// <summary>A search for room takes up to two seconds; the rest is for a queue of others on a busy machine.</summary>
    private static readonly TimeSpan LongestSearch = TimeSpan.FromMinutes(2);
    private static readonly TimeSpan BetweenLooks = TimeSpan.FromMilliseconds(40);

    /// <summary>The time limit of a settling, seconds.</summary>
    public static int SecondsOf(OpenJob? settling) => settling?.Ask.Request is { } request ? JobJson.Read<SettleRequest>(request).Seconds : UsualSeconds;

    /// <summary>Stocks whose pieces are settling at the moment.</summary>
    public Task<List<string>> UnderWayAsync(OnDesk on, CancellationToken stop) => jobs.UnderWayAsync(ProjectDesk.Owner, on.Project.Id, JobKind.Settle, stop);

    /// <summary>How a stock's pieces settle or have settled, where that was asked for and still fits the pieces; null otherwise.</summary>
    public async Task<OpenJob?> SettlingAsync(OnDesk on, string stock, CancellationToken stop) =>
        on.Value.SheetsAreCurrent && await OpenAsync(on, stock, stop) is { } job && on.Value.WasAskedForThese(job.Ask.MadeFor, job.Ask.Subject) ? job : null;

    /// <summary>Lets the pieces of a stock settle in the background.</summary>
    /// <exception cref="NotDone">There are none any more.</exception>
    /// <exception cref="EditRefused">There is no such stock, or a sheet of it is cut.</exception>
    public async Task SettleAsync(OnDesk on, string stock, int? seconds, CancellationToken stop)
    {
        var value = on.Value;
        if (!value.Made.Pieces.Any(p => p.Stock == stock)) throw new NotDone("There are no pieces of that stock any more.");
        on.Drawer.Stock(stock);
        value.Sheets!.ForStock(stock, value.Made).DemandUncut();
        var limit = seconds is { } s && TimeLimits.Contains(s) ? s : UsualSeconds;
        await asking.AskAsync(Ask(on, JobKind.Settle, stock, value.LayoutFingerprint(stock), new SettleRequest(limit)), stop);
    }

    /// <summary>Ends a settling; its best layout stays to be taken.</summary>
    public Task StopAsync(OnDesk on, string stock, CancellationToken stop) => jobs.StopAsync(ProjectDesk.Owner, on.Project.Id, JobKind.Settle, stock, stop);

    /// <summary>Forgets the settled layout.</summary>
    public Task DropAsync(OnDesk on, string stock, CancellationToken stop) => jobs.DropAsync(ProjectDesk.Owner, on.Project.Id, JobKind.Settle, stock, stop);

    /// <summary>The edit that puts the settled layout in the place of the one in the project.</summary>
    /// <param name="on">The project.</param>
    /// <param name="stock">Key of the stock.</param>
    /// <param name="job">The job whose layout the page showed.</param>
    /// <param name="stop">Cancels.</param>
    /// <exception cref="EditRefused">There is none, or it is another than the page showed.</exception>
    public async Task<TakeSettled> TakeAsync(OnDesk on, string stock, Guid job, CancellationToken stop)
    {
        var settling = await OpenAsync(on, stock, stop);
        if (settling is not null && settling.Id != job) throw new EditRefused(Reason.SettledStale);
        if (settling is null || JobJson.Layout(settling) is not { } best) throw new EditRefused(Reason.NothingSettled);
        return new TakeSettled(stock, best.Sheets.Length) { Layout = best, MadeFor = settling.Ask.MadeFor };
    }

    /// <summary>The other sheet with the copies on it, looked for by a worker while the page waits; null where there is no room.</summary>
    /// <exception cref="NotDone">No worker had time for it.</exception>
    public async Task<SheetLayout?> RoomAsync(OnDesk on, SendRequest request, CancellationToken stop)
    {
        var subject = request.Batch.ToString("N");
        var id = await asking.AskAsync(Ask(on, JobKind.Send, subject, on.Value.LayoutFingerprint(), request), stop);
        var over = await JobDesk.WaitAsync(
            async () => await jobs.OpenAsync(ProjectDesk.Owner, id, stop) is { IsUnderWay: false } ended ? ended : null, LongestSearch, BetweenLooks, stop);
        await jobs.DropAsync(ProjectDesk.Owner, on.Project.Id, JobKind.Send, subject, stop);
        if (over is null) throw new NotDone("No room was found in time; the machine is busy with other work. Try once more in a moment.");
        // What cannot be sent there at all says so itself; the edit has the words for it.
        return JobJson.Layout(over)?.Sheets.FirstOrDefault();
    }

    /// <summary>What a sheet leaves, as it is or as a rectangle, under the next free name of its stock.</summary>
    /// <exception cref="EditRefused">There is no such sheet, or nothing of it is worth keeping.</exception>
    public static (SheetLayout Sheet, Stock Stock, Offcut Kept) RestOf(OnDesk on, string sheet, bool straight)
    {
        var value = on.Value;
        if (value.Sheets?.Find(sheet) is not { } layout || !value.SheetsAreCurrent) throw new EditRefused(Reason.SheetGone);
        var stock = on.Drawer.Stock(layout.Stock);
        var rest = straight ? KeptRest.StraightPart(layout, value.Made, stock.NextOffcut) : KeptRest.FreePart(layout, value.Made, stock.NextOffcut);
        return (layout, stock, rest ?? throw new EditRefused(Reason.NothingWorthKeeping));
    }

    private Task<OpenJob?> OpenAsync(OnDesk on, string stock, CancellationToken stop) => jobs.OpenAsync(ProjectDesk.Owner, on.Project.Id, JobKind.Settle, stock, stop);

    private static JobAsk Ask<T>(OnDesk on, JobKind kind, string subject, string madeFor, T request) =>
        new(ProjectDesk.Owner, on.Project.Id, on.Project.Head, kind, subject, madeFor, JobJson.Write(request));
}
