using Falzkunst.Core.Designs;
using Falzkunst.Data.Rows;
using Microsoft.EntityFrameworkCore;

namespace Falzkunst.Data.Projects;

/// <summary>What is known of a picture that is kept.</summary>
public sealed record PictureFile(string Content, int PixelsAcross, int PixelsDown, double? DotsPerInch);

/// <summary>What was read of a picture.</summary>
/// <param name="MediaType">What kind of file it was.</param>
/// <param name="Screen">Its dots for the screen, as PNG.</param>
/// <param name="PixelsAcross">All its dots across.</param>
/// <param name="PixelsDown">All its dots down.</param>
/// <param name="DotsPerInch">Its resolution where the file says it.</param>
public sealed record PictureForms(string MediaType, byte[] Screen, int PixelsAcross, int PixelsDown, double? DotsPerInch);

/// <summary>Pictures of a workshop by the hash of their file.</summary>
public sealed class PictureStore(FalzkunstDb db, TimeProvider clock)
{
    /// <summary>The picture of a file that is kept already; null where it is not.</summary>
    public Task<PictureFile?> FindAsync(Guid owner, string content, CancellationToken stop) => db.Pictures.AsNoTracking()
        .Where(p => p.Owner == owner && p.Content == content)
        .Select(p => new PictureFile(p.Content, p.PixelsAcross, p.PixelsDown, p.DotsPerInch)).SingleOrDefaultAsync(stop);

    /// <summary>Keeps a picture; one that is there already stays as it is.</summary>
    public async Task<PictureFile> KeepAsync(Guid owner, byte[] file, PictureForms forms, CancellationToken stop)
    {
        var content = ContentHash.Compute(file);
        await db.Database.ExecuteSqlAsync(
            $"""
            insert into pictures (owner, content, file, media_type, screen, pixels_across, pixels_down, dots_per_inch, at)
            values ({owner}, {content}, {file}, {forms.MediaType}, {forms.Screen}, {forms.PixelsAcross}, {forms.PixelsDown}, {forms.DotsPerInch}, {clock.GetUtcNow()})
            on conflict (owner, content) do nothing
            """, stop);
        return new PictureFile(content, forms.PixelsAcross, forms.PixelsDown, forms.DotsPerInch);
    }

    /// <summary>A picture that nothing refers to is kept so long, since an edit that is about to bring it in may be on its way.</summary>
    private static readonly TimeSpan Unreferred = TimeSpan.FromDays(7);

    /// <summary>Takes out pictures that no revision of any project ever brought in; what one did bring in can be gone back to for ever.</summary>
    public Task<int> ForgetUnreferredAsync(CancellationToken stop)
    {
        var before = clock.GetUtcNow() - Unreferred;
        return db.Database.ExecuteSqlRawAsync(
            $$"""
            delete from pictures p where at < {0}
              and p.content not in (
                select one->>'content' from revisions r, {{StoredEdits.EachAsOne}}
                where one->>'edit' = 'bring-in-picture' and one->>'content' is not null)
            """, [before], stop);
    }

    /// <summary>The file of a picture as it came; null where the owner has none of that content.</summary>
    public Task<byte[]?> FileAsync(Guid owner, string content, CancellationToken stop) =>
        db.Pictures.AsNoTracking().Where(p => p.Owner == owner && p.Content == content).Select(p => p.File).SingleOrDefaultAsync(stop);

    /// <summary>The picture for the screen as PNG; null where the owner has none of that content.</summary>
    public Task<byte[]?> ScreenAsync(Guid owner, string content, CancellationToken stop) =>
        db.Pictures.AsNoTracking().Where(p => p.Owner == owner && p.Content == content).Select(p => p.Screen).SingleOrDefaultAsync(stop);
}
