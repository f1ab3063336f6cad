using Falzkunst.Core.Budgets;
using Falzkunst.Data.Workshop;
using Falzkunst.Formats;
using Falzkunst.Formats.Fonts;
using Falzkunst.Web.Reading;

namespace Falzkunst.Web.Desk;

/// <summary>Brings faces in and takes them away again.</summary>
public sealed class FaceDesk(FaceStore store, IFaceReader reader, OwnFaces faces)
{
    private const int LongestName = 60;

    /// <summary>Reads a face in the reading process to its last glyph, and keeps it for the workshop.</summary>
    /// <returns>Its key.</returns>
    /// <exception cref="NotDone">It is no face that can be used, in a sentence.</exception>
    public async Task<string> BringInAsync(IFormFile file, CancellationToken stop)
    {
        if (file.Length > FaceFile.MostBytes) throw new NotDone($"The file is larger than {FaceFile.MostBytes / 1048576} MB, which is the most that is read of a face.");
        using var content = new MemoryStream();
        await file.CopyToAsync(content, stop);
        var bytes = content.ToArray();
        try
        {
            var facts = await reader.ReadFaceAsync(bytes, BudgetLimits.Reading.Time, stop);
            var name = facts.Name.Length > 0 ? facts.Name : ShownText.Clean(System.IO.Path.GetFileNameWithoutExtension(file.FileName), LongestName);
            return await store.KeepAsync(ProjectDesk.Owner, name.Length > 0 ? name : "A face", facts.IsStroke, bytes, stop);
        }
        catch (ReadRefused refused)
        {
            throw new NotDone(refused.Message);
        }
    }

    public async Task RemoveAsync(string key, CancellationToken stop)
    {
        await store.RemoveAsync(ProjectDesk.Owner, key, stop);
        faces.Forget();
    }
}
