using Falzkunst.Core.Designs;
using Falzkunst.Core.Nesting;
using Falzkunst.Core.Nesting.Papers;
using Falzkunst.Data.Jobs;

namespace Falzkunst.Web.Jobs;

/// <summary>Searches better layouts of a stock's pieces until the time is over or nothing more can be gained.</summary>
public sealed class SettleWork(JobInput input, TimeProvider clock) : IWork
{
    /// <summary>It is content when nothing better has come for this share of its time, and for so many seconds at least.</summary>
    private const double PatienceShare = 0.4;
    private const double LeastPatience = 8;

    public JobKind Kind => JobKind.Settle;
    public JobLane Lane => JobLane.Searches;

    public async Task DoAsync(OpenJob job, WorkReport report, TaskFactory compute, CancellationToken stop)
    {
        var (project, drawer) = await input.OpenAsync(job, stop);
        var seconds = JobJson.Read<SettleRequest>(job.Ask.Request!).Seconds;
        var stock = project.AsLaid(drawer.Stock(job.Ask.Subject));
        var nest = PaperJobs.JobFor(
            project.Made, stock, drawer.Machine(project.SetOut.Machine), project.SetOut.SpacingMm, project.SetOut.Cards, project.Sheets?.ForStock(stock.Key, project.Made));
        var effort = new NestEffort(TimeSpan.FromSeconds(seconds), SeedOf(job)) { Patience = TimeSpan.FromSeconds(Math.Max(LeastPatience, seconds * PatienceShare)) };
        var begun = clock.GetTimestamp();
        await compute.StartNew(() => Nester.Nest(nest, effort, progress =>
        {
            report.Progress = clock.GetElapsedTime(begun).TotalSeconds / seconds;
            report.Found(JobJson.Write(PaperPlacing.LayoutOf(progress.Best, nest, stock, SheetLayouts.BatchKey(job.Id))));
        }, stop), CancellationToken.None);
    }

    /// <summary>Another search for each job, and the same for the same one.</summary>
    private static int SeedOf(OpenJob job) => BitConverter.ToInt32(job.Id.ToByteArray(), 12) & int.MaxValue;
}
