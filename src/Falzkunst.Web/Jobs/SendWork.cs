using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Projects;
using Falzkunst.Data.Jobs;

namespace Falzkunst.Web.Jobs;

/// <summary>Looks for room for copies on another sheet; finds a layout of that sheet alone, or nothing.</summary>
public sealed class SendWork(JobInput input) : IWork
{
    public JobKind Kind => JobKind.Send;
    public JobLane Lane => JobLane.Hurried;

    public async Task DoAsync(OpenJob job, WorkReport report, TaskFactory compute, CancellationToken stop)
    {
        var (project, drawer) = await input.OpenAsync(job, stop);
        var edit = EditOf(JobJson.Read<SendRequest>(job.Ask.Request!));
        if (await compute.StartNew(() => SheetRoom.Find(project, edit, drawer, stop), CancellationToken.None) is { } filled)
            report.Found(JobJson.Write(new StockLayout(filled.Stock, [filled], [])));
    }

    /// <summary>The edit that the search is for.</summary>
    public static SendPlacements EditOf(SendRequest r) => new(r.Sheet, r.Copies, r.To, r.Size, r.Batch);
}
