using System.Globalization;
using System.Text.Encodings.Web;
using System.Text.Json;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Data.Json;
using Falzkunst.Data.Workshop;
using Falzkunst.Web.Binding;
using Falzkunst.Web.Desk;
using Falzkunst.Web.Wording;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Falzkunst.Web.Pages.Catalogue;

/// <summary>
/// What the pages of the drawer have in common: the drawer, the units that lengths are shown in, and how a change is answered. A page
/// of its own shows a list beside a sheet; over a station only the sheet.
/// </summary>
public abstract class DrawerPage(DrawerDesk desk, DrawerStore store) : PageModel
{
    /// <summary>The cookie that says which units lengths are shown in outside of a project.</summary>
    public const string UnitsCookie = "units";

    protected DrawerDesk Desk { get; } = desk;

    protected DrawerStore Store { get; } = store;

    public Drawer Drawer { get; private set; } = null!;

    /// <summary>The last change, and what redo would do.</summary>
    public DrawerHistory History { get; private set; } = new(null, null);

    public Units Units => Request.Cookies[UnitsCookie] is { } named && Enum.TryParse<Units>(named, out var units) && Enum.IsDefined(units) ? units : Units.Millimetres;

    /// <summary>The thing was changed in another window: all of its sheet is shown anew.</summary>
    public bool IsStale { get; private set; }

    /// <summary>What could not be done, or was done.</summary>
    public string? Notice { get; protected set; }

    /// <summary>The sheet lies over a station.</summary>
    [BindProperty(SupportsGet = true)]
    public bool Over { get; set; }

    public override void OnPageHandlerSelected(PageHandlerSelectedContext context) => RequestUnits.Set(HttpContext, Units);

    public override async Task OnPageHandlerExecutionAsync(PageHandlerExecutingContext context, PageHandlerExecutionDelegate next)
    {
        if (ModelState.IsValid || HttpMethods.IsGet(Request.Method))
        {
            await next();
            return;
        }
        var (field, state) = ModelState.First(s => s.Value?.Errors.Count > 0);
        context.Result = await RefusedAsync(JsonNamingPolicy.CamelCase.ConvertName(field), state!.Errors[0].ErrorMessage, HttpContext.RequestAborted);
    }

    /// <summary>The version of the thing that the request was about, as it is now; null where it was about none.</summary>
    protected virtual int? ChangedVersion => null;

    protected async Task LoadAsync(CancellationToken stop)
    {
        Drawer = await Desk.OpenAsync(stop);
        History = await Store.HistoryAsync(ProjectDesk.Owner, stop);
    }

    /// <summary>The list and the sheet after a change; what is refused is said beside its field, or above.</summary>
    protected async Task<IActionResult> ActAsync(Func<Task> act, CancellationToken stop)
    {
        var isDone = false;
        try
        {
            await act();
            Response.Headers["HX-Trigger"] = """{"drawer-changed": {}}""";
            isDone = true;
        }
        catch (EditRefused e)
        {
            return await RefusedAsync(e.Field, ReasonWords.For(e, Units), stop);
        }
        catch (ThingChanged e)
        {
            Notice = $"{e.Name} was changed meanwhile in another window{(e.WhatChanged is null ? "" : $": {e.WhatChanged}")}. Here it is as it is now; your change was not made.";
            IsStale = true;
            Response.StatusCode = StatusCodes.Status409Conflict;
        }
        catch (NothingInDrawer)
        {
            Notice = "There is nothing to take back, or to do again.";
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        }
        catch (Exception e) when (e is DrawerRefused or NotDone)
        {
            Notice = e is DrawerRefused { Why: { } why } refused ? $"{refused.Where} cannot be taken. {ReasonWords.For(why, Units)}" : e.Message;
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        }
        await LoadAsync(stop);
        // What waits in the page goes on at the version that this change has made.
        if (isDone && ChangedVersion is { } version) Response.Headers["X-Drawer-Version"] = version.ToString(CultureInfo.InvariantCulture);
        return Partial("_DrawerParts", this);
    }

    private async Task<IActionResult> RefusedAsync(string? field, string word, CancellationToken stop)
    {
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        await LoadAsync(stop);
        // Beside its field, where what was typed stays.
        if (field is not null) FieldAnswers.Refuse(Response, field, word);
        else Notice = word;
        return Partial("_DrawerNotice", this);
    }

    public Task<IActionResult> OnPostUndoAsync(CancellationToken stop) => ActAsync(async () => Notice = $"Taken back: {(await Store.UndoAsync(ProjectDesk.Owner, stop)).Sentence}.", stop);

    public Task<IActionResult> OnPostRedoAsync(CancellationToken stop) => ActAsync(async () => Notice = $"Done again: {(await Store.RedoAsync(ProjectDesk.Owner, stop)).Sentence}.", stop);

    /// <summary>What a length as typed comes to.</summary>
    public IActionResult OnGetUnderstand(string? text) => FieldAnswers.Understood(text, Units);

    /// <summary>A length as it was typed; where its field still shows what is there now, which rounds, what is there now.</summary>
    protected double Kept(double typedMm, double nowMm) => Length.Kept(typedMm, nowMm, Units);

    /// <inheritdoc cref="Kept(double, double)"/>
    protected double? Kept(double? typedMm, double? nowMm) => typedMm is { } typed && nowMm is { } now ? Kept(typed, now) : typedMm;

    /// <summary>A length in a field.</summary>
    public string Field(double? mm) => mm is null ? "" : Length.InField(mm.Value, Units);
}
