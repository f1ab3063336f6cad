using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Detail;
using Falzkunst.Data.Jobs;
using Falzkunst.Web.Jobs;

namespace Falzkunst.Web.Desk;

/// <summary>How far the pieces of a project are measured.</summary>
/// <param name="Measured">Pieces that are.</param>
/// <param name="All">Pieces that there are.</param>
/// <param name="Phase">Where the job stands that measures the others; null where none is needed.</param>
public sealed record SurveyState(int Measured, int All, JobPhase? Phase)
{
    public bool IsComplete => Measured == All;
}

/// <summary>Looks up what is known of pieces, and asks for what is not; nothing is computed where a page is made.</summary>
public sealed class SurveyDesk(DetailCache cache, KnownResults known, JobStore jobs, JobDesk asking)
{
    /// <summary>So long a page waits for what is nearly there, and how often it looks.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromMilliseconds(350);
    private static readonly TimeSpan BetweenLooks = TimeSpan.FromMilliseconds(30);

    /// <summary>A way that is tried is waited for longer: its card shows nothing else.</summary>
    private static readonly TimeSpan LongPatience = TimeSpan.FromSeconds(1.5);

    /// <summary>The survey of a piece; null while nobody has measured it.</summary>
    public PieceSurvey? Known(Piece piece, double leastMm) => cache.Survey(DetailKeys.Survey(piece, leastMm));

    /// <summary>How many pieces of a project are too thin somewhere; null while that is not known.</summary>
    public int? ThinPieces(OnDesk on)
    {
        var thin = 0;
        foreach (var (_, _, key) in DetailKeys.Surveys(on.Value, on.Drawer))
        {
            if (cache.Survey(key) is not { } survey) return null;
            if (survey.Courses.Any(c => DetailCache.IsWeak(c.Place))) thin++;
        }
        return thin;
    }

    /// <summary>Brings here what is known of the project's pieces, and asks for the rest to be measured.</summary>
    /// <param name="on">The project.</param>
    /// <param name="waits">Waits a moment for what is soon there.</param>
    /// <param name="again">Asks also where measuring was stopped.</param>
    /// <param name="stop">Cancels.</param>
    public async Task<SurveyState> FillAsync(OnDesk on, bool waits, bool again, CancellationToken stop)
    {
        var pieces = DetailKeys.Surveys(on.Value, on.Drawer);
        var missing = await MissingAsync(pieces, stop);
        if (missing == 0) return new SurveyState(pieces.Length, pieces.Length, null);
        var ask = new JobAsk(ProjectDesk.Owner, on.Project.Id, on.Project.Head, JobKind.Survey, "", ContentHash.Compute(string.Join(' ', pieces.Select(p => p.Key))));
        var job = await jobs.OpenAsync(ask.Owner, ask.Project, JobKind.Survey, "", stop);
        var isOfNow = job is not null && job.Ask.MadeFor == ask.MadeFor;
        // What somebody stopped, or what broke its workers, is not begun again by looking at it.
        if (isOfNow && !again && job!.Phase is JobPhase.Stopped or JobPhase.Failed) return new SurveyState(pieces.Length - missing, pieces.Length, job!.Phase);
        if (!isOfNow || !job!.IsUnderWay)
        {
            await asking.AskAsync(ask, stop);
        }
        for (var left = Patience; waits && missing > 0 && left > TimeSpan.Zero; left -= BetweenLooks)
        {
            await Task.Delay(BetweenLooks, stop);
            missing = await MissingAsync(pieces, stop);
        }
        return new SurveyState(pieces.Length - missing, pieces.Length, missing == 0 ? null : JobPhase.Working);
    }

    /// <summary>Ends measuring; what was measured stays known.</summary>
    public Task StopAsync(OnDesk on, CancellationToken stop) => jobs.StopAsync(ProjectDesk.Owner, on.Project.Id, JobKind.Survey, "", stop);

    private async Task<int> MissingAsync(ImmutableArray<(Piece Piece, double LeastMm, string Key)> pieces, CancellationToken stop)
    {
        var missing = pieces.Select(p => p.Key).Where(k => cache.Survey(k) is null).Distinct().ToList();
        if (missing.Count == 0) return 0;
        foreach (var (key, survey) in await known.SurveysAsync(missing, stop)) cache.Keep(key, survey);
        return pieces.Count(p => cache.Survey(p.Key) is null);
    }

    /// <summary>A way to mend a piece; null while it has not been tried.</summary>
    public Candidate? Tried(Piece piece, Thicken how, Design design) =>
        how.Refusal is { } refusal ? new Candidate(how, null, refusal) : cache.Candidate(DetailKeys.Candidate(piece, how, design));

    /// <summary>A way to mend a piece, tried together with the others that the page shows; null while that takes longer than a moment.</summary>
    public async Task<Candidate?> TryAsync(OnDesk on, Piece piece, ImmutableArray<Thicken> ways, Thicken how, CancellationToken stop)
    {
        var key = DetailKeys.Candidate(piece, how, on.Value.Design);
        if (await TriedAsync() is { } before) return before;
        var keys = ways.Where(w => w.Refusal is null).Select(w => DetailKeys.Candidate(piece, w, on.Value.Design));
        var ask = new JobAsk(
            ProjectDesk.Owner, on.Project.Id, on.Project.Head, JobKind.Thicken, piece.Id, ContentHash.Compute(string.Join(' ', keys)), JobJson.Write(new ThickenRequest([.. ways.Where(w => w.Refusal is null)])));
        await asking.AskAsync(ask, stop);
        return await JobDesk.WaitAsync(TriedAsync, LongPatience, BetweenLooks, stop);

        async Task<Candidate?> TriedAsync()
        {
            if (Tried(piece, how, on.Value.Design) is { } here) return here;
            foreach (var (found, candidate) in await known.CandidatesAsync([key], stop)) cache.Keep(found, candidate);
            return cache.Candidate(key);
        }
    }
}
