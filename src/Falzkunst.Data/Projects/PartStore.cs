using Falzkunst.Core.Designs;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Caching.Memory;

namespace Falzkunst.Data.Projects;

/// <summary>Values already read from parts. A part never changes, so what was read once stays true.</summary>
public sealed class PartCache : IDisposable
{
    private const long MostCharacters = 200_000_000;
    private readonly MemoryCache _cache = new(new MemoryCacheOptions { SizeLimit = MostCharacters });

    internal bool TryGet<T>(string hash, out T value) where T : class
    {
        var found = _cache.TryGetValue((typeof(T), hash), out T? kept);
        value = kept!;
        return found;
    }

    /// <summary>A part of this hash has been read or written, so it is there.</summary>
    internal bool Knows(string hash) => _cache.TryGetValue(hash, out _);

    internal void Keep<T>(string hash, T value, long characters) where T : class =>
        _cache.Set((typeof(T), _cache.Set(hash, hash, new MemoryCacheEntryOptions { Size = 100 })), value, new MemoryCacheEntryOptions { Size = characters + 100 });

    public void Dispose() => _cache.Dispose();
}

/// <summary>Parts by content hash.</summary>
public sealed class PartStore(FalzkunstDb db, PartCache cache)
{
    /// <summary>
    /// Writes the parts that are not there yet. Two writers of one part do not disturb each other. What this process has read or
    /// written before need not be asked for.
    /// </summary>
    public async Task PutAsync(WrittenParts written, CancellationToken stop)
    {
        var hashes = written.Hashes.Where(h => !cache.Knows(h)).ToArray();
        if (hashes.Length == 0) return;
        var contents = hashes.Select(written.ContentOf).ToArray();
        await db.Database.ExecuteSqlAsync(
            $"insert into parts (hash, content) select * from unnest({hashes}, {contents}) on conflict (hash) do nothing", stop);
    }

    /// <summary>Keeps what was written, once that is certain to stay.</summary>
    public void Remember(WrittenParts written) => written.KeepIn(cache);

    /// <summary>A value that was read or written before; null where this process has not met it.</summary>
    public T? Find<T>(string hash) where T : class => cache.TryGet<T>(hash, out var kept) ? kept : null;

    /// <summary>Keeps a value that was read.</summary>
    public T Keep<T>(string hash, T value, long characters) where T : class
    {
        cache.Keep(hash, value, characters);
        return value;
    }

    /// <summary>The text of a part.</summary>
    public Task<string> TextAsync(string hash, CancellationToken stop) => db.Parts.Where(p => p.Hash == hash).Select(p => p.Content).SingleAsync(stop);

    /// <summary>A value by hash, read from its text only once per process.</summary>
    public async Task<T> GetAsync<T>(string hash, Func<string, T> read, CancellationToken stop) where T : class
    {
        if (Find<T>(hash) is { } kept) return kept;
        var content = await TextAsync(hash, stop);
        return Keep(hash, read(content), content.Length);
    }

    /// <summary>Shapes by hash, those not known yet in one question.</summary>
    public async Task<IReadOnlyDictionary<string, PieceShape>> ShapesAsync(IEnumerable<string> hashes, CancellationToken stop)
    {
        var shapes = new Dictionary<string, PieceShape>(StringComparer.Ordinal);
        var missing = new List<string>();
        foreach (var hash in hashes.Distinct())
        {
            if (cache.TryGet<PieceShape>(hash, out var kept)) shapes[hash] = kept;
            else missing.Add(hash);
        }
        if (missing.Count == 0) return shapes;
        foreach (var part in await db.Parts.AsNoTracking().Where(p => missing.Contains(p.Hash)).ToListAsync(stop))
        {
            shapes[part.Hash] = PieceShape.Read(part.Content);
            cache.Keep(part.Hash, shapes[part.Hash], part.Content.Length);
        }
        return shapes;
    }
}
