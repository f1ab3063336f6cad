using Falzkunst.Core.Pictures;
using Falzkunst.Core.Tracing;
using Microsoft.Extensions.Caching.Memory;

namespace Falzkunst.Web.Desk;

/// <summary>Pictures and traces that were made lately; all of them can be made again from what is kept.</summary>
public sealed class PictureCache : IDisposable
{
    /// <summary>Bytes.</summary>
    private const long Room = 320L * 1024 * 1024;

    /// <summary>A segment with its share of lists, bytes.</summary>
    private const int SegmentBytes = 80;

    /// <summary>A point with its share of lists, bytes.</summary>
    private const int PointBytes = 24;

    private readonly MemoryCache _known = new(new MemoryCacheOptions { SizeLimit = Room });

    public PictureState? State(string key) => _known.TryGetValue(key, out var found) ? (PictureState)found! : null;

    public void Keep(string key, PictureState state) =>
        _known.Set(key, state, new MemoryCacheEntryOptions { Size = state.Now.Rgba.Length + (ReferenceEquals(state.Now, state.Whole) ? 0 : state.Whole.Rgba.Length), SlidingExpiration = TimeSpan.FromMinutes(20) });

    public byte[]? Png(string key) => _known.TryGetValue($"png {key}", out var found) ? (byte[])found! : null;

    public void Keep(string key, byte[] png) => _known.Set($"png {key}", png, new MemoryCacheEntryOptions { Size = png.Length, SlidingExpiration = TimeSpan.FromMinutes(20) });

    public SeenLines? Seen(string key) => _known.TryGetValue($"seen {key}", out var found) ? (SeenLines)found! : null;

    public void Keep(string key, SeenLines seen) => _known.Set($"seen {key}", seen, new MemoryCacheEntryOptions { Size = (seen.Points + 100L) * PointBytes, SlidingExpiration = TimeSpan.FromMinutes(20) });

    public Traced? Trace(string key) => _known.TryGetValue($"trace {key}", out var found) ? (Traced)found! : null;

    public void Keep(string key, Traced traced) =>
        _known.Set($"trace {key}", traced, new MemoryCacheEntryOptions { Size = (traced.Segments + 100L) * SegmentBytes, SlidingExpiration = TimeSpan.FromMinutes(20) });

    public void Dispose() => _known.Dispose();
}
