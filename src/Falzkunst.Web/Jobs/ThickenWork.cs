using Falzkunst.Core.Budgets;
using Falzkunst.Core.Detail;
using Falzkunst.Data.Jobs;

namespace Falzkunst.Web.Jobs;

/// <summary>Tries ways to make a piece stronger.</summary>
public sealed class ThickenWork(JobInput input) : IWork
{
    public JobKind Kind => JobKind.Thicken;
    public JobLane Lane => JobLane.Hurried;

    public async Task DoAsync(OpenJob job, WorkReport report, TaskFactory compute, CancellationToken stop)
    {
        var (project, _) = await input.OpenAsync(job, stop);
        var piece = project.Design.Require(job.Ask.Subject);
        var ways = JobJson.Read<ThickenRequest>(job.Ask.Request!).Ways;
        for (var i = 0; i < ways.Length; i++)
        {
            var how = ways[i];
            var key = DetailKeys.Candidate(piece, how, project.Design);
            if ((await input.KnownAsync(k => k.CandidatesAsync([key], stop))).Count == 0)
            {
                var tried = await compute.StartNew(() => Candidates.Try(piece, how, project.Design, Budget.Until(stop)), CancellationToken.None);
                await input.KnownAsync(k => k.PutAsync(key, tried, stop));
            }
            report.Progress = (i + 1.0) / ways.Length;
        }
    }
}
