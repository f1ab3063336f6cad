using System.Globalization;
using System.Text.Encodings.Web;
using System.Text.Json;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Data.Projects;
using Falzkunst.Web.Binding;
using Falzkunst.Web.Desk;
using Falzkunst.Web.LightTable;
using Falzkunst.Web.Wording;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Falzkunst.Web.Pages.Project;

/// <summary>
/// One station of a project. A full request renders ledger, light table and tray; every action answers with ledger and tray
/// again (partial _Regions) and tells the page the new head. What goes wrong becomes a notice or a word beside its field.
/// </summary>
public abstract class StationPage(ProjectDesk desk) : PageModel
{
    private static readonly JsonSerializerOptions SceneJson = new(JsonSerializerDefaults.Web);

    /// <summary>Key of the project.</summary>
    [BindProperty(SupportsGet = true)]
    public Guid Id { get; set; }

    /// <summary>Where this station stands on the route.</summary>
    public abstract Station Station { get; }

    /// <summary>Partials of this station for ledger, tray and what lies over the light table (null where nothing does).</summary>
    public string LedgerPartial => $"_{Station.Key}Ledger";
    public string TrayPartial => $"_{Station.Key}Tray";
    public virtual string? OverPartial => null;

    /// <summary>Names of the scene's layouts that the user may choose from, or none.</summary>
    public virtual string Modes => "";

    /// <summary>The scene depends on what is selected.</summary>
    public virtual bool SceneFollows => false;

    /// <summary>What is selected as the page shows it, whether the user chose it or the station did.</summary>
    public virtual string? ShownKey => null;

    /// <summary>The station has a command line.</summary>
    public virtual bool HasCommands => false;

    /// <summary>Pieces and lines are picked, moved and drawn by hand on its table.</summary>
    public virtual bool PicksOnTable => false;

    /// <summary>The commands that can be typed here.</summary>
    public IReadOnlyList<Core.Commands.Command> Commands => HasCommands ? Core.Commands.CommandLine.All : [];

    /// <summary>What an empty table says: what this station is for and the one next action.</summary>
    public virtual string EmptyTable => "";

    public OnDesk On { get; private set; } = null!;
    public Core.Projects.Project Value => On.Value;
    public Units Units => Value.SetOut.Units;
    protected ProjectDesk Desk { get; } = desk;

    /// <summary>What could not be done, above the tray; null where all is well.</summary>
    public string? Notice { get; protected set; }

    /// <summary>Where the notice leads; null where it leads nowhere.</summary>
    public NoticeLink? NoticeLink { get; private set; }

    /// <summary>The project was changed elsewhere; the notice offers to show what is there now.</summary>
    public bool IsStale { get; private set; }

    /// <summary>Words beside fields, by field name.</summary>
    public Dictionary<string, string> Wrong { get; } = new(StringComparer.Ordinal);

    /// <summary>What was typed into fields that were not understood, by field name.</summary>
    public Dictionary<string, string> Typed { get; } = new(StringComparer.Ordinal);

    /// <summary>What is selected on the page: a piece, a sheet, a file. It stands in the body, since it may be long; a page just opened has it in its address.</summary>
    protected string? Selected => Request.HasFormContentType && Request.Form["picked"].FirstOrDefault() is { Length: > 0 } picked ? picked : Request.Query["at"].FirstOrDefault();

    /// <summary>The revision that the page showed when the user acted.</summary>
    protected int SeenHead =>
        int.TryParse(Request.Headers["X-Project-Head"], NumberStyles.None, CultureInfo.InvariantCulture, out var head) ? head : -1;

    /// <summary>Rows of the ledger that the page has, where they are sent one by one.</summary>
    public string? SeenRows => Request.HasFormContentType ? Request.Form["rows"].FirstOrDefault() : null;

    /// <summary>Reads what the station shows besides the project.</summary>
    protected virtual Task LoadAsync(CancellationToken stop) => Task.CompletedTask;

    protected abstract Scene BuildScene();

    /// <summary>What was picked at the station before, which the page keeps in a cookie; null where that was another project's.</summary>
    protected string? PickedElsewhere => Request.Cookies["pick"] is { Length: < 2000 } kept && kept.Split('|') is [var project, var key] && project == Id.ToString() ? key : null;

    /// <summary>The project is opened before the request's values are read, since lengths are read in its units.</summary>
    public override async Task OnPageHandlerSelectionAsync(PageHandlerSelectedContext context)
    {
        try
        {
            if (!Guid.TryParse(context.RouteData.Values["id"]?.ToString(), out var id) || await Desk.OpenAsync(id, HttpContext.RequestAborted) is not { } on) return;
            On = on;
        }
        catch (Exception e) when (e is JsonException or FormatException or ArgumentException or KeyNotFoundException)
        {
            // One project that cannot be read is said to be so; nothing else stops for it.
            HttpContext.RequestServices.GetRequiredService<ILogger<StationPage>>().LogError(e, "A project cannot be read.");
            _isUnreadable = true;
            return;
        }
        RequestUnits.Set(HttpContext, Units);
    }

    /// <summary>Every handler is asked for a project that is there and for values that were understood.</summary>
    public override async Task OnPageHandlerExecutionAsync(PageHandlerExecutingContext context, PageHandlerExecutionDelegate next)
    {
        if (On is null) context.Result = _isUnreadable ? new StatusCodeResult(TroubleModel.Unreadable) : NotFound();
        else if (ModelState.IsValid) await DoneAsync(await next());
        else context.Result = HttpMethods.IsPost(Request.Method) ? await NotUnderstoodAsync(HttpContext.RequestAborted) : BadRequest();
    }

    private bool _isUnreadable;

    /// <summary>What a handler refuses without having taken care of it, an id that is not there say, gets its sentence all the same.</summary>
    private async Task DoneAsync(PageHandlerExecutedContext done)
    {
        if (done.ExceptionHandled || done.Exception is not (EditRefused or Formats.ReadRefused or Core.Running.PlanRefused or NotDone)) return;
        Notice = done.Exception switch
        {
            EditRefused e => ReasonWords.For(e, Units),
            Core.Running.PlanRefused e => RunWords.For(e),
            var e => e.Message,
        };
        NoticeLink = (done.Exception as NotDone)?.Leads;
        done.ExceptionHandled = true;
        Response.StatusCode = HttpMethods.IsGet(Request.Method) ? StatusCodes.Status404NotFound : StatusCodes.Status422UnprocessableEntity;
        done.Result = await RefusedAsync(HttpContext.RequestAborted);
    }

    /// <summary>Values that were not understood, each with a word beside its field; nothing is changed.</summary>
    private async Task<IActionResult> NotUnderstoodAsync(CancellationToken stop)
    {
        foreach (var (field, state) in ModelState.Where(s => s.Value?.Errors.Count > 0))
            Refuse(JsonNamingPolicy.CamelCase.ConvertName(field), state!.AttemptedValue, state.Errors[0].ErrorMessage);
        return await RefusedAsync(stop);
    }

    /// <summary>The answer to what was refused: for a field a word beside it, else a notice. What was typed stays where it was typed.</summary>
    protected virtual Task<IActionResult> RefusedAsync(CancellationToken stop)
    {
        var (field, word) = Wrong.FirstOrDefault();
        if (field is not null) FieldAnswers.Refuse(Response, field, word);
        return Task.FromResult<IActionResult>(Partial("_NoticeAlone", this));
    }

    public async Task<IActionResult> OnGetAsync(CancellationToken stop)
    {
        await LoadAsync(stop);
        await RouteAsync(stop);
        // The drawer, opened from here, shows lengths as this project does.
        Response.Cookies.Append(Catalogue.DrawerPage.UnitsCookie, Units.ToString(), new CookieOptions { SameSite = SameSiteMode.Lax, MaxAge = TimeSpan.FromDays(365) });
        return Page();
    }

    /// <summary>The route says how many pieces are too thin; what of that is not known yet is asked for and not waited for.</summary>
    private Task<SurveyState> RouteAsync(CancellationToken stop) => HttpContext.RequestServices.GetRequiredService<SurveyDesk>().FillAsync(On, waits: false, again: false, stop);

    /// <summary>Ledger and tray as they are now, such as for another selection. It changes nothing; a selection may be too long for an address.</summary>
    public async Task<IActionResult> OnPostShowAsync(CancellationToken stop) => await RegionsAsync(stop);

    /// <summary>What the light table draws.</summary>
    public Task<IActionResult> OnGetSceneAsync(CancellationToken stop) => SceneAsync(new HashSet<string>(), stop);

    /// <summary>What the light table draws, without pieces that the page has in the very same form.</summary>
    /// <param name="have">Versions of those pieces, parted by blanks.</param>
    /// <param name="stop">Cancels.</param>
    public Task<IActionResult> OnPostSceneAsync(string? have, CancellationToken stop) => SceneAsync((have ?? "").Split(' ').ToHashSet(), stop);

    private async Task<IActionResult> SceneAsync(IReadOnlySet<string> have, CancellationToken stop)
    {
        // The scene of most stations is the project's alone.
        if (SceneFollows) await LoadAsync(stop);
        return new JsonResult(BuildScene().Without(have), SceneJson);
    }

    /// <summary>A picture after its steps, as PNG of our own making; its address changes with what it shows, so that it is kept for good.</summary>
    /// <param name="picture">Id of the picture.</param>
    /// <param name="side">Its longest side, dots.</param>
    /// <param name="stop">Cancels.</param>
    public async Task<IActionResult> OnGetDotsAsync(string picture, int side, CancellationToken stop)
    {
        if (Value.Design.Pictures.FirstOrDefault(p => p.Id == picture) is not { } shown) return NotFound();
        var png = await HttpContext.RequestServices.GetRequiredService<PictureDesk>().PngAsync(shown, Math.Clamp(side, 16, PictureDesk.ScreenSide), stop);
        Response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return File(png, "image/png");
    }

    public Task<IActionResult> OnPostUndoAsync(CancellationToken stop) =>
        ActAsync(async () => On = await Desk.UndoAsync(On, SeenHead, stop), stop);

    public Task<IActionResult> OnPostRedoAsync(CancellationToken stop) =>
        ActAsync(async () => On = await Desk.RedoAsync(On, SeenHead, stop), stop);

    /// <summary>How many revisions the history shows.</summary>
    private const int ShownRevisions = 60;

    public IReadOnlyList<(RevisionCard Card, Core.Projects.Project Value)> History { get; private set; } = [];

    public async Task<IActionResult> OnGetHistoryAsync(CancellationToken stop)
    {
        History = await Desk.HistoryAsync(On, ShownRevisions, stop);
        return Partial("_History", this);
    }

    public Task<IActionResult> OnPostGoToAsync(int revision, CancellationToken stop) =>
        ActAsync(async () => On = await Desk.GoToAsync(On, SeenHead, revision, stop), stop);

    public Task<IActionResult> OnPostProjectNameAsync(string? name, CancellationToken stop) =>
        ActAsync(async () => On = await Desk.RenameAsync(On, name, stop), stop);

    /// <summary>Carries out an edit and shows the station again.</summary>
    protected Task<IActionResult> DoAsync(Edit edit, CancellationToken stop) => ActAsync(() => DoNowAsync(edit, stop), stop);

    /// <summary>Carries out an edit; what is refused goes to whoever called.</summary>
    protected async Task DoNowAsync(Edit edit, CancellationToken stop, Func<int, Task>? alongside = null) => On = await Desk.DoAsync(On, SeenHead, edit, stop, alongside);

    /// <summary>What a length as typed comes to, in the user's units; the sentence of what is wrong where it is none.</summary>
    public IActionResult OnGetUnderstand(string? text) => FieldAnswers.Understood(text, Units);

    /// <summary>Does something that may be refused, and shows the station again. What was refused with a field is shown beside it.</summary>
    protected async Task<IActionResult> ActAsync(Func<Task> act, CancellationToken stop)
    {
        try
        {
            await act();
        }
        catch (EditRefused e)
        {
            Refuse(e);
        }
        catch (NotDone e)
        {
            (Notice, NoticeLink) = (e.Message, e.Leads);
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        }
        catch (StaleEdit e)
        {
            Notice = $"Your change was not made, since the project has changed meanwhile in another window: {e.WhatChanged}.";
            NoticeLink = new("Show what is there now", "");
            IsStale = true;
            Response.StatusCode = StatusCodes.Status409Conflict;
        }
        return await RegionsAsync(stop);
    }

    /// <summary>Replaces the project on the desk after something outside <see cref="DoAsync"/> changed it.</summary>
    protected void Show(OnDesk on) => On = on;

    protected async Task<IActionResult> RegionsAsync(CancellationToken stop)
    {
        await LoadAsync(stop);
        await RouteAsync(stop);
        // A page that acted on an old revision goes on showing it until its user asks for the new one.
        if (!IsStale)
        {
            Response.Headers["HX-Trigger"] = JsonSerializer.Serialize(new Dictionary<string, object>
            {
                ["project-shown"] = new { head = On.Project.Head, asked = Selected ?? "", selected = ShownKey ?? "" },
            }, FieldAnswers.AsciiJson);
        }
        return Partial("_Regions", this);
    }

    /// <summary>What a length field shows: what was typed where that was not understood, else the value.</summary>
    public string Field(string name, double mm) => Typed.GetValueOrDefault(name) ?? Length.InField(mm, Units);

    /// <summary>A length field: its value, or a word beside it and null.</summary>
    protected double? ReadLength(string field, string? text)
    {
        if (Length.Read(text, Units, out var mm) is not { } fault) return mm;
        Refuse(field, text, ReasonWords.For(fault, text));
        return null;
    }

    /// <summary>A whole-number field: its value, or a word beside it and null.</summary>
    protected int? ReadCount(string field, string? text, int least, int most)
    {
        if (Numbers.TryRead(text, out int number) && number >= least && number <= most) return number;
        Refuse(field, text, $"A whole number from {least} to {most}.");
        return null;
    }

    /// <summary>A refusal of the core: a word beside the field that it is about, else a notice.</summary>
    protected void Refuse(EditRefused refused)
    {
        var words = ReasonWords.For(refused, Units);
        if (refused.Field is { } field) Refuse(field, Request.HasFormContentType ? Request.Form[field] : default(string?), words);
        else Notice = words;
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
    }

    protected void Refuse(string field, string? text, string error)
    {
        Wrong[field] = error;
        Typed[field] = text ?? "";
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
    }
}
