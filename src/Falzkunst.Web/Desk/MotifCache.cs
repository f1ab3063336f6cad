using Falzkunst.Core.Designs.ArtSheets;
using Microsoft.Extensions.Caching.Memory;

namespace Falzkunst.Web.Desk;

/// <summary>Files lately looked at with what hangs together in them, so that turning a page of a contact sheet does not read the file again.</summary>
public sealed class MotifCache : IDisposable
{
    private const int MostFiles = 12;
    private readonly MemoryCache _cache = new(new MemoryCacheOptions { SizeLimit = MostFiles });

    /// <summary>A file at a scale.</summary>
    public async Task<Linkage> GetAsync(Guid file, double scale, Func<Task<Linkage>> read)
    {
        if (_cache.TryGetValue((file, scale), out Linkage? kept)) return kept!;
        return _cache.Set((file, scale), await read(), new MemoryCacheEntryOptions { Size = 1, SlidingExpiration = TimeSpan.FromMinutes(20) });
    }

    public void Dispose() => _cache.Dispose();
}
