using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Data.Jobs;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Workshop;

namespace Falzkunst.Web.Jobs;

/// <summary>What jobs are about: the project at the revision that was asked for, and the drawer.</summary>
public sealed class JobInput(IServiceScopeFactory scopes)
{
    /// <exception cref="EditRefused">The project is gone.</exception>
    public async Task<(Project Project, Drawer Drawer)> OpenAsync(OpenJob job, CancellationToken stop)
    {
        await using var scope = scopes.CreateAsyncScope();
        var project = await scope.ServiceProvider.GetRequiredService<ProjectStore>().RevisionAsync(job.Ask.Owner, job.Ask.Project, job.Ask.Revision, stop)
            ?? throw new EditRefused(Reason.ProjectGone);
        return (project, await scope.ServiceProvider.GetRequiredService<CatalogueStore>().DrawerAsync(job.Ask.Owner, stop));
    }

    /// <summary>Does something with what computations have found before.</summary>
    public async Task<T> KnownAsync<T>(Func<KnownResults, Task<T>> use)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await use(scope.ServiceProvider.GetRequiredService<KnownResults>());
    }
}
