namespace Falzkunst.Data.Jobs;

/// <summary>Kinds of long work.</summary>
public enum JobKind
{
    /// <summary>A better layout of a stock's pieces is searched.</summary>
    Settle,

    /// <summary>The pieces of a project are measured.</summary>
    Survey,

    /// <summary>Ways to make a piece stronger are tried.</summary>
    Thicken,

    /// <summary>Room for copies is looked for on another sheet.</summary>
    Send,

    /// <summary>All the dots of a picture are traced.</summary>
    Trace,
}

/// <summary>Where a job stands.</summary>
public enum JobPhase
{
    Waiting,
    Working,

    /// <summary>It is done, or nothing more could be gained.</summary>
    Done,

    /// <summary>Somebody ended it; the best so far is kept.</summary>
    Stopped,

    /// <summary>Whoever worked on it is gone; the best so far is kept.</summary>
    Interrupted,

    /// <summary>It cannot be done, or broke its worker once too often.</summary>
    Failed,
}

/// <summary>Work that is asked for.</summary>
/// <param name="Owner">Whose.</param>
/// <param name="Project">Of which project.</param>
/// <param name="Revision">And which of its revisions.</param>
/// <param name="Kind">What is to be done.</param>
/// <param name="Subject">With what of the project: a stock, a piece; empty for all.</param>
/// <param name="MadeFor">Fingerprint of all that it depends on.</param>
/// <param name="Request">What else the kind wants to know, JSON.</param>
public sealed record JobAsk(Guid Owner, Guid Project, int Revision, JobKind Kind, string Subject, string MadeFor, string? Request = null);

/// <summary>A job as pages and workers see it.</summary>
public sealed record OpenJob(
    Guid Id, JobAsk Ask, JobPhase Phase, int Attempts, DateTimeOffset? BegunAt, DateTimeOffset? BetterAt, DateTimeOffset? OverAt,
    double Progress, int Answers, string? Result, int SchemaVersion)
{
    public bool IsUnderWay => Phase is JobPhase.Waiting or JobPhase.Working;
}
