using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Running;

namespace Falzkunst.Web.Wording;

/// <summary>Why a run or a plan cannot go on, in a sentence.</summary>
public static class RunWords
{
    public static string For(CommandRefused refused) => refused.Reason switch
    {
        RunRefusal.NotWaiting => "The machine is not waiting for a hand just now.",
        RunRefusal.NotHot => $"The tip is not hot yet: {Math.Ceiling(refused.Seconds):0} s of machine time to go.",
        RunRefusal.NotRead => "The marks of the page are not found yet. Find them, or show them by hand.",
        RunRefusal.TooFarApart => "Cut and print may lie farther apart than this page allows. Go on all the same, or calibrate the machine first.",
        RunRefusal.NotRunning => "Only a running machine can pause.",
        RunRefusal.NotPaused => "The machine is not paused.",
        RunRefusal.Over => "This run is over already.",
        RunRefusal.Stale => "The machine has gone on since; look at what it asks for now, then touch again.",
        RunRefusal.Gone => "This run is no longer there.",
        _ => throw new ArgumentOutOfRangeException(nameof(refused)),
    };

    public static string For(PlanRefused refused) =>
        $"{refused.Machine} has no holder for a {refused.Tool.Name()}. Choose another machine at Set-out, or give those lines another operation.";
}
