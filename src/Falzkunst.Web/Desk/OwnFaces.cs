using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Texts;
using Falzkunst.Data.Workshop;
using Falzkunst.Formats;
using Falzkunst.Formats.Fonts;
using Falzkunst.Formats.Wire;
using Falzkunst.Web.Reading;
using Microsoft.Extensions.Caching.Memory;

namespace Falzkunst.Web.Desk;

/// <summary>
/// The faces of a workshop: those that it brought in, and those that ship. What came from outside is shaped in the reading process;
/// what was lately made of words is kept, as long as it has room.
/// </summary>
public sealed class OwnFaces(FaceShelf shelf, IServiceScopeFactory scopes, IWordShaper shaper) : IDisposable
{
    /// <summary>Bytes of shaped words that are kept.</summary>
    private const long Room = 48L * 1024 * 1024;

    /// <summary>A segment or a placed glyph with its share of lists, bytes.</summary>
    private const int PartBytes = 80;

    private readonly MemoryCache _known = new(new MemoryCacheOptions { SizeLimit = Room });

    /// <summary>How often a face was taken away; part of what anything is kept under.</summary>
    private int _removals;

    /// <summary>All faces that an owner has at hand.</summary>
    /// <param name="owner">The workshop.</param>
    /// <param name="own">Those that it brought in.</param>
    public IFaces For(Guid owner, ImmutableArray<FaceName> own) => new Workshop(this, owner, own);

    /// <summary>Forgets what was made by faces, as one of them was taken away; nobody asks for it any more, and it goes with time.</summary>
    public void Forget() => Interlocked.Increment(ref _removals);

    private static bool IsOwn(string key) => key.StartsWith("own-", StringComparison.Ordinal);

    private byte[]? Content(Guid owner, string key)
    {
        using var scope = scopes.CreateScope();
        return scope.ServiceProvider.GetRequiredService<FaceStore>().Content(owner, key);
    }

    private ShapedText? Shape(Guid owner, string key, string words, IReadOnlyList<string> forms)
    {
        if (!IsOwn(key)) return shelf.Shape(key, words, forms);
        return Kept((_removals, owner, key, words, string.Join(' ', forms)), () => Content(owner, key) is { } face ? Shaped(face, new WordsToShape(words, forms)) : null, SizeOf);
    }

    /// <summary>
    /// An edit is computed in one go, and a thread waits for the reading process meanwhile: before anything is written or locked, and for a
    /// few milliseconds for words of a usual length.
    /// </summary>
    private ShapedText Shaped(byte[] face, WordsToShape words)
    {
        try
        {
            return Task.Run(() => shaper.ShapeAsync(face, words, BudgetLimits.Reading.Time, CancellationToken.None)).GetAwaiter().GetResult();
        }
        catch (ReadRefused)
        {
            throw new EditRefused(Reason.FaceShapesNothing) { Field = "face" };
        }
    }

    /// <summary>The list of features is read here: that is a bounded walk over a few hundred tags, by code that knows where the file ends.</summary>
    private ImmutableArray<string> FormsOf(Guid owner, string key) =>
        !IsOwn(key) ? shelf.FormsOf(key) : Kept((_removals, owner, key), () => Content(owner, key) is { } face ? new Offered(FaceFile.FormsOf(face)) : null, _ => PartBytes)?.Forms ?? [];

    private T? Kept<T>(object what, Func<T?> make, Func<T, long> size)
        where T : class
    {
        if (_known.TryGetValue(what, out var kept)) return (T?)kept;
        if (make() is not { } made) return null;
        return _known.Set(what, made, new MemoryCacheEntryOptions { Size = size(made), SlidingExpiration = TimeSpan.FromMinutes(20) });
    }

    private static long SizeOf(ShapedText shaped) => (100L + shaped.Segments() + shaped.Paragraphs.Sum(p => p.Glyphs.Length)) * PartBytes;

    public void Dispose() => _known.Dispose();

    private sealed record Offered(ImmutableArray<string> Forms);

    private sealed class Workshop(OwnFaces faces, Guid owner, ImmutableArray<FaceName> own) : IFaces
    {
        public ImmutableArray<FaceName> All => [.. own, .. FaceShelf.Shipped];

        public ShapedText? Shape(string face, string words, params IReadOnlyList<string> forms) => faces.Shape(owner, face, words, forms);

        public ImmutableArray<string> FormsOf(string face) => faces.FormsOf(owner, face);
    }
}
