using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Microsoft.Extensions.Caching.Memory;

namespace Falzkunst.Web.Desk;

/// <summary>Motifs of files lately looked at, so that turning a page of a contact sheet does not read the file again.</summary>
public sealed class MotifCache : IDisposable
{
    private const int MostFiles = 12;
    private readonly MemoryCache _cache = new(new MemoryCacheOptions { SizeLimit = MostFiles });

    /// <summary>The motifs of a file under some rules.</summary>
    public async Task<ImmutableArray<Motif>> GetAsync(Guid file, ImmutableArray<LookRule> rules, Func<Task<ImmutableArray<Motif>>> read)
    {
        var key = (file, string.Join('\n', rules.Select(r => r.ToString())));
        if (_cache.TryGetValue(key, out ImmutableArray<Motif> kept)) return kept;
        return _cache.Set(key, await read(), new MemoryCacheEntryOptions { Size = 1, SlidingExpiration = TimeSpan.FromMinutes(20) });
    }

    public void Dispose() => _cache.Dispose();
}
