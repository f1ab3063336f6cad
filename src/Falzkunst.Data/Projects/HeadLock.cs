using Falzkunst.Core.Designs;
using Falzkunst.Core.Refusals;
using Falzkunst.Data.Rows;
using Microsoft.EntityFrameworkCore;

namespace Falzkunst.Data.Projects;

/// <summary>The row of a project, locked until the transaction ends, so that what is done on one head comes one after the other.</summary>
internal static class HeadLock
{
    /// <exception cref="StaleEdit">The head is another than the page showed.</exception>
    /// <exception cref="EditRefused">The project is gone.</exception>
    public static async Task<ProjectRow> DemandAsync(FalzkunstDb db, Guid owner, Guid id, int expectedHead, CancellationToken stop)
    {
        var row = await db.Projects
            .FromSql($"select * from projects where id = {id} and owner = {owner} for update")
            .SingleOrDefaultAsync(stop) ?? throw new EditRefused(Reason.ProjectGone);
        if (row.Head == expectedHead) return row;
        var last = await db.Revisions.Where(r => r.ProjectId == id && r.Number == row.Head).Select(r => r.Sentence).SingleAsync(stop);
        throw new StaleEdit(last, row.Head);
    }
}
