using Falzkunst.Data.Jobs;
using Falzkunst.Web.Jobs;

namespace Falzkunst.Web.Desk;

/// <summary>Traces all the dots of a picture; finds what was traced.</summary>
public sealed class TraceWork(JobInput input, IServiceScopeFactory scopes) : IWork
{
    public JobKind Kind => JobKind.Trace;
    public JobLane Lane => JobLane.Hurried;

    public async Task DoAsync(OpenJob job, WorkReport report, TaskFactory compute, CancellationToken stop)
    {
        var request = JobJson.Read<TraceRequest>(job.Ask.Request!);
        var (project, _) = await input.OpenAsync(job, stop);
        await using var scope = scopes.CreateAsyncScope();
        var traced = await scope.ServiceProvider.GetRequiredService<PictureDesk>()
            .TraceAsync(project.Design.RequirePicture(request.Picture), request.Settings, stop, share => report.Progress = share);
        report.Found(JobJson.Write(traced));
    }
}
