using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Serialization;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Building;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Tracing;
using Falzkunst.Data.Jobs;
using Falzkunst.Data.Projects;
using Falzkunst.Formats;
using Falzkunst.Web.Binding;
using Falzkunst.Web.Desk;
using Falzkunst.Web.Jobs;
using Falzkunst.Web.Pictures;
using Falzkunst.Web.Wording;
using Microsoft.AspNetCore.Mvc;
using Path = System.IO.Path;

namespace Falzkunst.Web.Pages.Project;

/// <summary>Pictures at the Art station: brought in, worked on step by step, traced, laid on pieces.</summary>
public sealed partial class ArtModel
{
    private static readonly JsonSerializerOptions StepJson = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false) },
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        MaxDepth = 8,
    };

    /// <summary>A step is no longer than this as text.</summary>
    private const int LongestStep = 200_000;

    private string? _broughtPicture;

    /// <summary>The picture on show; null where a file is, or nothing.</summary>
    public CardPicture? ShownPicture =>
        Value.Design.Pictures.FirstOrDefault(p => p.Id == _broughtPicture)
        ?? (_broughtIn ? null : Value.Design.Pictures.FirstOrDefault(p => p.Id == Selected))
        ?? (Files.Count == 0 && !_broughtIn ? Value.Design.Pictures.LastOrDefault() : null);

    /// <summary>Pieces that a picture lies on.</summary>
    public IEnumerable<(Piece Piece, PictureItem Item)> LiesOn(CardPicture picture) =>
        Value.Design.Pieces.SelectMany(p => p.Items.OfType<PictureItem>().Where(i => i.Of == picture.Id).Select(i => (p, i)));

    /// <summary>Names of the pieces of the last trace that were changed since, and would be lost when it is done again.</summary>
    public IReadOnlyList<string> ChangedSinceTrace => ShownPicture?.Trace is { } trace ? TracedPieces.ChangedSince(Value.Design, trace) : [];

    /// <summary>A corner that a pen of usual ink has rounded is still meant sharp, mm.</summary>
    public const double UsualCornerMm = 0.1;

    /// <summary>How lines keep to a picture where nobody said anything: half a dot, but no finer than a blade can follow.</summary>
    public static double UsualSmoothMm(CardPicture picture) => Math.Round(Math.Max(0.03, picture.MmPerDot * TraceHow.UsualTolerance * Math.Max(1, Math.Max(picture.PixelsAcross, picture.PixelsDown) / (double)PictureDesk.ScreenSide)), 3);

    /// <summary>Reads and keeps a picture; the edit brings it in.</summary>
    private async Task<BringInPicture> PictureEditAsync(string name, byte[] content, Func<PictureFile, double>? mmPerDot, CancellationToken stop)
    {
        var kept = await pictures.KeepAsync(content, stop);
        // A camera says nothing of paper (72 to the inch is such an answer): as usual, and no larger than the card.
        var usual = kept.DotsPerInch is > 90 and var said ? CardPicture.InchMm / said : CardPicture.InchMm / CardPicture.UsualDotsPerInch;
        var widest = Math.Max(Value.SetOut.Card.OpenWidth, Value.SetOut.Card.OpenHeight);
        var size = mmPerDot?.Invoke(kept) ?? (kept.DotsPerInch is null ? Math.Min(usual, widest / Math.Max(kept.PixelsAcross, kept.PixelsDown)) : usual);
        return new BringInPicture(ArtDesk.Named(name), kept.Content, kept.PixelsAcross, kept.PixelsDown, size);
    }

    /// <summary>Pictures that a drawing had in it, each at the size that it has there. One that cannot be read is told, and the drawing and the others stay.</summary>
    private async Task EmbeddedAsync(string file, IReadOnlyList<DrawnPicture> embedded, Action<Edit> take, List<string> refused, CancellationToken stop)
    {
        var number = 0;
        foreach (var picture in embedded)
        {
            number++;
            var name = picture.Name ?? $"{Path.GetFileNameWithoutExtension(file)}, picture {number}";
            try
            {
                take(await PictureEditAsync(name, picture.Content, kept => picture.Width * picture.Place.MeanScale / kept.PixelsAcross, stop));
            }
            catch (Exception e) when (e is ReadRefused or EditRefused)
            {
                refused.Add($"{name} was not brought in. {(e is EditRefused why ? ReasonWords.For(why, Units) : e.Message)}");
            }
        }
    }

    /// <summary>Does something to a picture.</summary>
    /// <param name="picture">Id of the picture.</param>
    /// <param name="step">What, as JSON.</param>
    /// <param name="stop">Cancels.</param>
    public Task<IActionResult> OnPostPictureStepAsync(string picture, string? step, CancellationToken stop) => ActAsync(async () =>
    {
        if (step?.Length > LongestStep) throw new NotDone("That stroke is longer than is kept. Draw it in parts.");
        await WorkAsync(picture, ReadStep(step ?? ""), stop);
    }, stop);

    private async Task WorkAsync(string picture, PictureStep step, CancellationToken stop)
    {
        On.Project.DemandSeen(SeenHead);
        // What cannot be carried out is known before it is written.
        var edit = new AddPictureStep(picture, step);
        await pictures.ScreenAsync(On.With(edit).Value.Design.RequirePicture(picture), stop);
        await DoNowAsync(edit, stop);
    }

    private static PictureStep ReadStep(string step)
    {
        try
        {
            return JsonSerializer.Deserialize<PictureStep>(step, StepJson) ?? throw new JsonException();
        }
        catch (Exception e) when (e is JsonException or NotSupportedException or ArgumentException)
        {
            throw new NotDone("That was not understood, and the picture is as it was. Load the page again and do it once more.");
        }
    }

    /// <summary>Turns a picture by an angle.</summary>
    public Task<IActionResult> OnPostStraightenAsync(string picture, double degrees, CancellationToken stop) => ActAsync(() => WorkAsync(picture, new Straighten(degrees), stop), stop);

    /// <summary>Takes one step back; those after it stay.</summary>
    public Task<IActionResult> OnPostDropStepAsync(string picture, int index, CancellationToken stop) => DoAsync(new DropPictureStep(picture, index), stop);

    public Task<IActionResult> OnPostPictureSizeAsync(string picture, [InMillimetres] double width, CancellationToken stop) => ActAsync(async () =>
    {
        var of = Value.Design.RequirePicture(picture);
        await DoNowAsync(new ResizePicture(picture, width / of.Pixels.Across), stop);
    }, stop);

    public Task<IActionResult> OnPostRemovePictureAsync(string picture, CancellationToken stop) => DoAsync(new RemovePicture(picture), stop);

    /// <summary>How a picture is to be traced, as its form says it.</summary>
    public sealed record TraceFields(
        TraceMode Mode, [InMillimetres] double Smooth, [InMillimetres] double? Chosen, double? Threshold, [InMillimetres] double Speck, int Colours, [InMillimetres] double Border, [InMillimetres] double Corner)
    {
        /// <summary>As was asked for.</summary>
        public TraceSettings Settings => With(Smooth);

        /// <summary>The one that was chosen of those beside each other.</summary>
        public TraceSettings Taken => With(Chosen ?? Smooth);

        private TraceSettings With(double smooth) => new(Mode, smooth, Threshold is > 0 and var t ? t / 100 : null, Speck, Colours, Mode == TraceMode.Rim ? Border : 0, Corner);
    }

    /// <summary>What a trace would give, three ways side by side.</summary>
    public async Task<IActionResult> OnGetTracedAsync(string picture, TraceFields fields, CancellationToken stop)
    {
        var of = Value.Design.RequirePicture(picture);
        return Partial("_PictureTraced", (this, await TraceCandidate.ForAsync(pictures, of, fields.Settings, Value, On.Drawer, stop)));
    }

    /// <summary>Takes what was traced.</summary>
    public Task<IActionResult> OnPostTakeTraceAsync(string picture, TraceFields fields, Operation? operation, string? onto, bool again, CancellationToken stop) => ActAsync(async () =>
    {
        var of = Value.Design.RequirePicture(picture);
        var request = new TraceRequest(picture, fields.Taken, operation ?? Operation.Draw, string.IsNullOrEmpty(onto) ? null : onto, again);
        if (PictureDesk.IsSoon(of)) await TakeAsync(request, await pictures.TraceAsync(of, request.Settings, stop), stop);
        else if (SeenHead == On.Project.Head) await jobs.AskAsync(new JobAsk(ProjectDesk.Owner, Id, On.Project.Head, JobKind.Trace, picture, of.Key, JobJson.Write(request)), stop);
        // A page of the past is told so by the edit.
        else await TakeAsync(request, null, stop);
    }, stop);

    private Task TakeAsync(TraceRequest r, Traced? traced, CancellationToken stop) =>
        DoNowAsync(new TakeTrace(r.Picture, r.Settings, r.Operation, r.Onto, r.Again) { Traced = traced }, stop);

    /// <summary>The tracing of all of the shown picture that is under way, or ended and was not taken yet; null where none is, or the picture is another since.</summary>
    public OpenJob? Tracing { get; private set; }

    private async Task LoadTracingAsync(CancellationToken stop) =>
        Tracing = ShownPicture is { } shown && await jobStore.OpenAsync(ProjectDesk.Owner, Id, JobKind.Trace, shown.Id, stop) is { } job && job.Ask.MadeFor == shown.Key ? job : null;

    /// <summary>Takes what a job has traced; the page asks for it as soon as it is there.</summary>
    /// <param name="job">The job that the page showed.</param>
    /// <param name="stop">Cancels.</param>
    public Task<IActionResult> OnPostTakeTracedAsync(Guid job, CancellationToken stop) => ActAsync(async () =>
    {
        if (await jobStore.OpenAsync(ProjectDesk.Owner, job, stop) is not { Ask.Kind: JobKind.Trace } done || done.Ask.Project != Id || JobJson.Traced(done) is not { } traced)
            throw new NotDone("That tracing is not there any more. Trace the picture once more.");
        await TakeAsync(JobJson.Read<TraceRequest>(done.Ask.Request!), traced, stop);
        await jobStore.DropAsync(ProjectDesk.Owner, Id, JobKind.Trace, done.Ask.Subject, stop);
    }, stop);

    /// <summary>Ends the tracing of a picture, or forgets one that failed.</summary>
    public Task<IActionResult> OnPostStopTracingAsync(string picture, CancellationToken stop) =>
        ActAsync(() => jobStore.DropAsync(ProjectDesk.Owner, Id, JobKind.Trace, picture, stop), stop);

    public Task<IActionResult> OnPostLayPictureAsync(string picture, string onto, bool pattern, CancellationToken stop) => DoAsync(new LayPicture(onto, picture, pattern), stop);

    public Task<IActionResult> OnPostTakeOffPictureAsync(string onto, string item, CancellationToken stop) => DoAsync(new TakeOffPictures(onto, [item]), stop);

    /// <summary>A colour that was touched on a picture, and what it can be used for.</summary>
    public async Task<IActionResult> OnGetColourAsync(string picture, double x, double y, CancellationToken stop)
    {
        var image = await pictures.ScreenAsync(Value.Design.RequirePicture(picture), stop);
        var at = image.At(Math.Clamp((int)(x * image.Width), 0, image.Width - 1), Math.Clamp((int)(y * image.Height), 0, image.Height - 1));
        return Partial("_PictureColour", (this, $"#{image.Rgba[at]:X2}{image.Rgba[at + 1]:X2}{image.Rgba[at + 2]:X2}"));
    }

    /// <summary>Pen lines of a piece in a colour, the piece on the stock that comes nearest to it, or the colour printed all over it.</summary>
    public Task<IActionResult> OnPostUseColourAsync(string onto, string colour, bool stock, bool ground, CancellationToken stop) => ActAsync(async () =>
    {
        if (!Core.Catalogue.StockColours.IsColour(colour)) throw new NotDone("That is no colour. Touch the picture once more.");
        var piece = Value.Design.Require(onto);
        if (ground)
        {
            await DoNowAsync(new PrintFills([onto], colour, OnBack: false), stop);
            return;
        }
        var pen = piece.Items.OfType<WorkedItem>().Where(i => i.Operation == Operation.Draw).Select(i => i.Id).ToImmutableArray();
        if (!stock && pen.IsEmpty) throw new NotDone($"{piece.Name} has no pen lines. Give lines to the pen at Pieces, or put the piece on the nearest stock.");
        await DoNowAsync(stock ? new SetStock([onto], On.Drawer.StockFor(colour)) : new SetInk([new(onto, pen)], colour.ToUpperInvariant()), stop);
    }, stop);
}
