using Falzkunst.Core.Actions;
using Falzkunst.Core.Commands;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Web.Desk;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Project;

/// <summary>A station with a command line, as all have. Where nothing is picked, commands that need a pick say so.</summary>
public abstract class CommandPage(ProjectDesk desk) : StationPage(desk)
{
    public override bool HasCommands => true;

    /// <summary>What commands are done to.</summary>
    protected virtual Picked CommandPick => Picked.Nothing;

    /// <summary>Picks anew after an edit.</summary>
    /// <param name="picked">What was picked before it.</param>
    /// <param name="edit">The edit.</param>
    /// <param name="before">The project before it.</param>
    protected virtual void PickedAfter(Picked picked, Edit edit, Core.Projects.Project before)
    {
    }

    /// <summary>Does what a command says to what is picked.</summary>
    public Task<IActionResult> OnPostCommandAsync(string? text, CancellationToken stop) => DoAsync(c => CommandLine.Read(text ?? "", c), CommandPick, null, stop);

    /// <summary>Carries out an action that is read in view of the project.</summary>
    protected async Task<IActionResult> DoAsync(
        Func<BenchContext, BenchAction> read, Picked actedOn, Func<Edit, Core.Projects.Project, CancellationToken, Task>? done, CancellationToken stop)
    {
        var (before, picked) = (Value, CommandPick);
        var answer = await ActAsync(async () =>
        {
            var context = new BenchContext(Value, actedOn, On.Drawer);
            var edit = read(context).For(context);
            await DoNowAsync(edit, stop);
            PickedAfter(picked, edit, before);
            if (done is not null) await done(edit, before, stop);
        }, stop);
        // What was typed stays where it was typed until it is understood.
        return (Notice is null && Wrong.Count == 0) || IsStale ? answer : await RefusedAsync(stop);
    }
}
