using Falzkunst.Core.Running;

namespace Falzkunst.Data.Runs;

/// <summary>A run with what it was frozen with and where it stands.</summary>
public sealed record OpenRun(
    Guid Id, Guid Project, int Revision, string SheetId, string SheetTitle, string Machine, DateTimeOffset BegunAt, DateTimeOffset? OverAt,
    int SpeedUp, RunPlan Plan, RunState State, int LastEvent);

/// <summary>A run in a list, without its plan.</summary>
public sealed record RunCard(
    Guid Id, string SheetId, string SheetTitle, int Revision, RunPhase Phase, DateTimeOffset BegunAt, DateTimeOffset? OverAt, double MachineSeconds)
{
    /// <summary>No hand and no clock changes it any more.</summary>
    public bool IsOver => Phase is RunPhase.Done or RunPhase.Stopped or RunPhase.Broken;
}
