using Falzkunst.Data.Jobs;

namespace Falzkunst.Web.Jobs;

/// <summary>How one kind of job is done.</summary>
public interface IWork
{
    JobKind Kind { get; }

    /// <summary>Its work is done in a second or two and somebody waits for it, so that it does not queue behind long searches.</summary>
    bool IsShort { get; }

    /// <summary>Does it. What it throws is kept to this job.</summary>
    /// <param name="job">What is asked for.</param>
    /// <param name="report">Where it says how far it is, and what it finds.</param>
    /// <param name="compute">Carries out computation on the workers' threads.</param>
    /// <param name="stop">Nobody wants it any more.</param>
    Task DoAsync(OpenJob job, WorkReport report, TaskFactory compute, CancellationToken stop);
}
