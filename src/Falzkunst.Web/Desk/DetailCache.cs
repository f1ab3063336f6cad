using Falzkunst.Core.Detail;
using Falzkunst.Web.Jobs;
using Microsoft.Extensions.Caching.Memory;

namespace Falzkunst.Web.Desk;

/// <summary>
/// Surveys of pieces and ways tried to mend them that this process has met, by <see cref="DetailKeys"/>. It computes nothing: what
/// is not here may be in the database, and what is not there is a job.
/// </summary>
public sealed class DetailCache : IDisposable
{
    /// <summary>What is kept weighs so many places and nodes at most.</summary>
    private const long MostWeight = 20_000_000;

    private static readonly TimeSpan Kept = TimeSpan.FromMinutes(30);
    private readonly MemoryCache _cache = new(new MemoryCacheOptions { SizeLimit = MostWeight });

    public PieceSurvey? Survey(string key) => _cache.Get<PieceSurvey>(key);

    public void Keep(string key, PieceSurvey survey) => Keep(key, survey, 50 + survey.Courses.Sum(c => 5 + c.Lines.Sum(l => l.Length)));

    /// <summary>A way that was carried out on a piece.</summary>
    public Candidate? Candidate(string key) => _cache.Get<Candidate>(key);

    public void Keep(string key, Candidate candidate) => Keep(key, candidate, 50 + (candidate.Result?.Nodes ?? 0));

    /// <summary>Narrow material tears; narrow air is only a thing to know of.</summary>
    public static bool IsWeak(ThinPlace place) => place.Kind is ThinKind.Neck or ThinKind.Strand;

    private void Keep<T>(string key, T value, long weight) =>
        _cache.Set(key, value, new MemoryCacheEntryOptions { Size = weight, SlidingExpiration = Kept });

    public void Dispose() => _cache.Dispose();
}
