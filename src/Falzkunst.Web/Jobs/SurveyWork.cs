using Falzkunst.Core.Budgets;
using Falzkunst.Core.Detail;
using Falzkunst.Data.Jobs;

namespace Falzkunst.Web.Jobs;

/// <summary>Measures those pieces of a project that nobody has measured yet.</summary>
public sealed partial class SurveyWork(JobInput input, ILogger<SurveyWork> log) : IWork
{
    public JobKind Kind => JobKind.Survey;
    public JobLane Lane => JobLane.Surveys;

    public async Task DoAsync(OpenJob job, WorkReport report, TaskFactory compute, CancellationToken stop)
    {
        var (project, drawer) = await input.OpenAsync(job, stop);
        var pieces = DetailKeys.Surveys(project, drawer).DistinctBy(p => p.Key).ToList();
        var known = (await input.KnownAsync(k => k.SurveysAsync([.. pieces.Select(p => p.Key)], stop))).Keys.ToHashSet();
        for (var i = 0; i < pieces.Count; i++)
        {
            var (piece, least, key) = pieces[i];
            report.Progress = (double)i / pieces.Count;
            if (known.Contains(key)) continue;
            stop.ThrowIfCancellationRequested();
            var survey = await compute.StartNew(() => Survey(piece, least, stop), CancellationToken.None);
            await input.KnownAsync(k => k.PutAsync(key, survey, stop));
        }
    }

    /// <summary>What one piece does stays with that piece.</summary>
    private PieceSurvey Survey(Core.Designs.Piece piece, double least, CancellationToken stop)
    {
        try
        {
            return PieceWidths.Survey(piece, least, Budget.Until(stop));
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            NotMeasured(log, piece.Name, e);
            return new PieceSurvey([], 0, 0, IsComplete: false);
        }
    }

    [LoggerMessage(LogLevel.Error, "The piece {Piece} could not be measured.")]
    private static partial void NotMeasured(ILogger logger, string piece, Exception exception);
}
