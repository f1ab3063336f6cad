using Falzkunst.Data.Jobs;

namespace Falzkunst.Web.Jobs;

/// <summary>Lanes of jobs that do not wait for each other.</summary>
public enum JobLane
{
    /// <summary>Takes up to minutes.</summary>
    Searches,

    /// <summary>Takes a moment for each of many things.</summary>
    Surveys,

    /// <summary>Takes a second or two, and somebody waits for it.</summary>
    Hurried,
}

/// <summary>How one kind of job is done.</summary>
public interface IWork
{
    JobKind Kind { get; }

    /// <summary>Which lane it waits in.</summary>
    JobLane Lane { get; }

    /// <summary>Does it. What it throws is kept to this job.</summary>
    /// <param name="job">What is asked for.</param>
    /// <param name="report">Where it says how far it is, and what it finds.</param>
    /// <param name="compute">Carries out computation on the workers' threads.</param>
    /// <param name="stop">Nobody wants it any more.</param>
    Task DoAsync(OpenJob job, WorkReport report, TaskFactory compute, CancellationToken stop);
}
