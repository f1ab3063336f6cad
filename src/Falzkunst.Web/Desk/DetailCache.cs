using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Projects;
using Microsoft.Extensions.Caching.Memory;

namespace Falzkunst.Web.Desk;

/// <summary>
/// Surveys of pieces and ways tried to mend them. Both follow from shapes and numbers alone, so that undo, another window and
/// the next request find them again; what no page asks for any more is let go.
/// </summary>
public sealed class DetailCache(ILogger<DetailCache> log) : IDisposable
{
    /// <summary>What is kept weighs so many places and nodes at most.</summary>
    private const long MostWeight = 2_000_000;

    private static readonly TimeSpan Kept = TimeSpan.FromMinutes(30);
    private readonly MemoryCache _cache = new(new MemoryCacheOptions { SizeLimit = MostWeight });

    /// <summary>Cancelled when the server ends: nobody waits for a survey any more.</summary>
    private readonly CancellationTokenSource _over = new();

    /// <summary>Surveys that run in the background.</summary>
    private readonly HashSet<Guid> _busy = [];

    /// <summary>The thin places of a piece on its stock, narrowest first.</summary>
    public ImmutableArray<WidthCourse> Places(Piece piece, double leastMm) =>
        Known(piece, leastMm) is { } known ? known : Keep(Key(piece, leastMm), PieceWidths.Courses(piece, leastMm), 100);

    /// <summary>The same, if it has been looked for already.</summary>
    public ImmutableArray<WidthCourse>? Known(Piece piece, double leastMm) =>
        _cache.TryGetValue(Key(piece, leastMm), out ImmutableArray<WidthCourse> places) ? places : null;

    /// <summary>How many pieces of a project are too thin somewhere; null while that is being found out, which this begins.</summary>
    public int? ThinPieces(OnDesk on)
    {
        var thin = 0;
        foreach (var piece in on.Value.Design.Pieces)
        {
            if (Known(piece, LeastOf(on, piece)) is not { } places)
            {
                Begin(on);
                return null;
            }
            if (places.Any(p => IsWeak(p.Place))) thin++;
        }
        return thin;
    }

    /// <summary>Narrow material tears; narrow air is only a thing to know of.</summary>
    public static bool IsWeak(ThinPlace place) => place.Kind is ThinKind.Neck or ThinKind.Strand;

    /// <summary>Looks at every piece that has not been looked at.</summary>
    public void Fill(OnDesk on, CancellationToken stop) =>
        Parallel.ForEach(on.Value.Design.Pieces, new ParallelOptions { CancellationToken = stop }, piece => Places(piece, LeastOf(on, piece)));

    private static double LeastOf(OnDesk on, Piece piece) => LeastWidth.Of(on.Value.SetOut, piece.Stock, on.Drawer).Mm;

    private void Begin(OnDesk on)
    {
        lock (_busy)
        {
            if (!_busy.Add(on.Project.Id)) return;
        }
        _ = Task.Run(() =>
        {
            try
            {
                // One after the other: whoever waits for a page goes first.
                foreach (var piece in on.Value.Design.Pieces.TakeWhile(_ => !_over.IsCancellationRequested)) Places(piece, LeastOf(on, piece));
            }
            catch (ObjectDisposedException) when (_over.IsCancellationRequested)
            {
                // What the last survey found has no place to be kept any more.
            }
            catch (Exception e)
            {
                log.LogError(e, "A piece could not be surveyed in the background.");
            }
            finally
            {
                lock (_busy) _busy.Remove(on.Project.Id);
            }
        });
    }

    /// <summary>A way carried out on a piece.</summary>
    public Candidate Try(Piece piece, Thicken how, Design design)
    {
        var key = Key(piece, how, design);
        return _cache.Get<Candidate>(key) ?? Keep(key, Candidates.Try(piece, how, design), 50 + piece.Paper.Rings.Sum(p => p.Segments.Length));
    }

    /// <summary>The same, if it has been carried out already.</summary>
    public Candidate? Tried(Piece piece, Thicken how, Design design) => _cache.Get<Candidate>(Key(piece, how, design));

    private T Keep<T>(string key, T value, long weight) =>
        _cache.Set(key, value, new MemoryCacheEntryOptions { Size = weight, SlidingExpiration = Kept });

    private static string Key(Piece piece, double leastMm) => string.Create(CultureInfo.InvariantCulture, $"{PieceWidths.KeyOf(piece)} {leastMm:R}");

    private static string Key(Piece piece, Thicken how, Design design)
    {
        var key = new StringBuilder(PieceWidths.KeyOf(piece)).Append(CultureInfo.InvariantCulture, $" {how}");
        // What lies beside it matters as well, and where that lies as seen from it.
        if (how.Refusal is null)
        {
            foreach (var other in Neighbours.Pieces(piece, design, how.ReachMm)) key.Append(CultureInfo.InvariantCulture, $" {PieceWidths.KeyOf(other)} {other.Place.Then(piece.Place.Inverse())}");
        }
        return key.ToString();
    }

    public void Dispose()
    {
        _over.Cancel();
        _cache.Dispose();
        _over.Dispose();
    }
}
