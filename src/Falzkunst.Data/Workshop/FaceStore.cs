using Falzkunst.Core.Designs;
using Falzkunst.Core.Refusals;
using Falzkunst.Data.Rows;
using Microsoft.EntityFrameworkCore;

namespace Falzkunst.Data.Workshop;

/// <summary>Faces that a workshop brought in.</summary>
public sealed class FaceStore(FalzkunstDb db, TimeProvider clock)
{
    /// <summary>A workshop has at most so many of its own.</summary>
    public const int Most = 60;

    private const int DigitsOfKey = 12;

    /// <summary>The key of a face: the same file has the same one.</summary>
    public static string KeyOf(byte[] content) => $"own-{ContentHash.Compute(content)[..DigitsOfKey]}";

    /// <summary>Keeps a face; one that is there already stays as it is.</summary>
    /// <exception cref="EditRefused">The workshop has as many as it may.</exception>
    public async Task<string> KeepAsync(Guid owner, string name, bool isStroke, byte[] content, CancellationToken stop)
    {
        var key = KeyOf(content);
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        await db.Database.ExecuteSqlAsync($"select from workshops where id = {owner} for update", stop);
        if (await db.Faces.AnyAsync(f => f.Owner == owner && f.Key == key, stop)) return key;
        if (await db.Faces.CountAsync(f => f.Owner == owner, stop) >= Most) throw new EditRefused(Reason.TooManyInDrawer, Most);
        db.Faces.Add(new FaceRow { Owner = owner, Key = key, Name = name, IsStroke = isStroke, Content = content, At = clock.GetUtcNow() });
        await db.SaveChangesAsync(stop);
        await db.DrawerChangedAsync(owner, stop);
        await transaction.CommitAsync(stop);
        return key;
    }

    /// <summary>Takes a face away; words that were set in it keep their form.</summary>
    public async Task RemoveAsync(Guid owner, string key, CancellationToken stop)
    {
        if (await db.Faces.Where(f => f.Owner == owner && f.Key == key).ExecuteDeleteAsync(stop) > 0) await db.DrawerChangedAsync(owner, stop);
    }

    /// <summary>The file of a face; null where the owner has none of that key.</summary>
    public byte[]? Content(Guid owner, string key) => db.Faces.AsNoTracking().Where(f => f.Owner == owner && f.Key == key).Select(f => f.Content).SingleOrDefault();
}
