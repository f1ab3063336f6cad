using System.Collections.Concurrent;
using System.Collections.Immutable;
using Falzkunst.Core.Texts;
using Falzkunst.Data.Workshop;
using Falzkunst.Formats.Fonts;

namespace Falzkunst.Web.Desk;

/// <summary>The faces of a workshop: those that it brought in, and those that ship. What was read once is kept while it is used.</summary>
public sealed class OwnFaces(FaceShelf shelf, IServiceScopeFactory scopes)
{
    /// <summary>So many faces of workshops are kept read.</summary>
    private const int MostKept = 24;

    private readonly ConcurrentDictionary<(Guid Owner, string Key), Face> _read = new();

    /// <summary>All faces that an owner has at hand.</summary>
    /// <param name="owner">The workshop.</param>
    /// <param name="own">Those that it brought in.</param>
    public IFaces For(Guid owner, ImmutableArray<FaceName> own) => new Workshop(this, owner, own);

    private Face? Find(Guid owner, string key)
    {
        if (shelf.Find(key) is { } shipped) return shipped;
        if (!key.StartsWith("own-", StringComparison.Ordinal)) return null;
        if (_read.TryGetValue((owner, key), out var kept)) return kept;
        using var scope = scopes.CreateScope();
        if (scope.ServiceProvider.GetRequiredService<FaceStore>().Content(owner, key) is not { } content) return null;
        // Those who still work with one of these go on; their memory comes back when they are done.
        if (_read.Count >= MostKept) _read.Clear();
        return _read[(owner, key)] = FaceFile.Read(content);
    }

    /// <summary>Forgets a face that was taken away.</summary>
    public void Forget(Guid owner, string key) => _read.TryRemove((owner, key), out _);

    private sealed class Workshop(OwnFaces faces, Guid owner, ImmutableArray<FaceName> own) : IFaces
    {
        public ImmutableArray<FaceName> All => [.. own, .. FaceShelf.Shipped];

        public ShapedText? Shape(string face, string words, params IReadOnlyList<string> forms) => faces.Find(owner, face)?.Shape(words, forms);

        public ImmutableArray<string> FormsOf(string face) => faces.Find(owner, face)?.Forms ?? [];
    }
}
