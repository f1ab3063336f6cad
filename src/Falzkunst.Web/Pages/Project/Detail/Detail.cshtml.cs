using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Web.Binding;
using Falzkunst.Web.Desk;
using Falzkunst.Web.LightTable;
using Falzkunst.Web.Pictures;
using Falzkunst.Web.Wording;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Project;

/// <summary>What of the pieces is too thin for its stock, or too small, and ways to mend it.</summary>
public sealed class DetailModel(ProjectDesk desk, SurveyDesk surveys) : BenchPage(desk)
{
    private DetailSettings? _settings;
    private Dictionary<string, ImmutableArray<WidthCourse>>? _places;

    public override Station Station => Station.Detail;
    public override string? OverPartial => "_DetailOver";
    public override bool SceneFollows => true;
    public override string EmptyTable => "Here the fine parts of pieces are measured against what their stock bears, and made stronger. Bring in art first.";

    /// <summary>The numbers that are looked for and mended with.</summary>
    public DetailSettings Settings => _settings ?? DetailSettings.Read(Selected);

    /// <summary>The piece that the tray is about: the first that is picked.</summary>
    public override Piece? Shown => Picked.PieceIds is [var first, ..] ? Value.Design.Find(first) : null;

    /// <summary>The chosen pieces, of which the first is shown; where none was chosen the one that needs it most.</summary>
    protected override Picked ReadPicked(string? key)
    {
        var chosen = PickedKey.Read(key?.Split(':')[0], Value.Design);
        if (key is { Length: > 0 } && !chosen.IsEmpty) return Picked.OfPieces(chosen.PieceIds);
        var worst = Value.Design.Pieces.Where(p => !p.Hidden).Select(p => (Piece: p, Ratio: WeakOf(p).Select(w => w.Place.WidthMm / Least(p).Mm).FirstOrDefault(1))).DefaultIfEmpty().MinBy(p => p.Ratio);
        return worst.Piece is null ? Picked.Nothing : Picked.OfPieces(worst.Piece.Id);
    }

    public override string? ShownKey => Settings.Behind(PickedKey.Write(Picked, Value.Design));

    /// <summary>What the project trusts a piece's stock with.</summary>
    public LeastWidth Least(Piece piece) => LeastWidth.ForStock(Value.SetOut, piece.Stock, On.Drawer);

    /// <summary>How far the pieces are measured.</summary>
    public SurveyState Survey { get; private set; } = new(0, 0, null);

    /// <summary>What was found about a piece; null while it has not been measured.</summary>
    public PieceSurvey? SurveyOf(Piece piece) => surveys.Known(piece, Least(piece).Mm);

    /// <summary>The thin places of a piece, material before air, narrowest first; numbered from 1 on the page.</summary>
    public ImmutableArray<WidthCourse> PlacesOf(Piece piece)
    {
        _places ??= [];
        if (_places.TryGetValue(piece.Id, out var known)) return known;
        return _places[piece.Id] = [.. (SurveyOf(piece)?.Courses ?? []).OrderBy(c => DetailCache.IsWeak(c.Place) ? 0 : 1)];
    }

    public IEnumerable<WidthCourse> WeakOf(Piece piece) => PlacesOf(piece).Where(c => DetailCache.IsWeak(c.Place));

    /// <summary>The width that is mended to.</summary>
    public double Wanted(Piece piece) => Settings.WidthMm ?? Least(piece).Mm;

    /// <summary>The ways to mend that are laid side by side.</summary>
    public ImmutableArray<Thicken> Ways(Piece piece) =>
        Candidates.Ways(Wanted(piece), Settings.GapMm, WeakOf(piece).Select(w => (double?)w.Place.WidthMm).FirstOrDefault());

    /// <summary>What came of a way, if it has been tried already.</summary>
    public Candidate? Tried(Piece piece, Thicken how) => surveys.Tried(piece, how, Value.Design);

    /// <summary>The small things of a piece; none where it is too intricate to be looked through.</summary>
    public ImmutableArray<SmallThing> SmallThingsOf(Piece piece)
    {
        try
        {
            return SmallThings.Find(piece, Settings.SizeMm);
        }
        catch (EditRefused e) when (e.Reason == Reason.TooIntricate)
        {
            return [];
        }
    }

    /// <summary>The loose islands in a piece, or the piece itself where it is one.</summary>
    public IReadOnlyList<Island> IslandsOf(Piece piece) => [.. Islands.Find(Value.Design).Where(i => i.Host.Id == piece.Id || i.Piece.Id == piece.Id)];

    private bool _measuresAgain;

    /// <summary>What is known of the pieces is brought here before anything is said of them; the rest is asked for.</summary>
    protected override async Task LoadAsync(CancellationToken stop)
    {
        Survey = await surveys.FillAsync(On, waits: true, _measuresAgain, stop);
        _places = null;
    }

    /// <summary>Ends measuring the pieces; what was measured stays known.</summary>
    public Task<IActionResult> OnPostStopMeasuringAsync(CancellationToken stop) => ActAsync(() => surveys.StopAsync(On, stop), stop);

    /// <summary>Measures what was left when measuring was stopped.</summary>
    public Task<IActionResult> OnPostMeasureAsync(CancellationToken stop)
    {
        _measuresAgain = true;
        return RegionsAsync(stop);
    }

    protected override Scene BuildScene() => Shown is { } piece ? DetailScene.Build(On, piece, PlacesOf(piece), Least(piece), IslandsOf(piece)) : DetailScene.Empty(On);

    /// <summary>Other numbers for what is looked for and mended with.</summary>
    public Task<IActionResult> OnPostSettingsAsync(string? width, string? gap, string? size, CancellationToken stop)
    {
        var settings = Settings;
        if (Shown is { } piece)
        {
            if (width is not null && ReadLength("width", width) is { } w)
                settings = w is >= Thicken.LeastMm and <= Thicken.MostMm ? settings with { WidthMm = w == Least(piece).Mm ? null : w } : Refused("width", width, $"Between {Thicken.LeastMm} and {Thicken.MostMm} mm.", settings);
            if (gap is not null && ReadLength("gap", gap) is { } g)
                settings = g is >= 0 and <= Thicken.MostMm ? settings with { GapMm = g } : Refused("gap", gap, $"Between 0 and {Thicken.MostMm} mm.", settings);
            if (size is not null && ReadLength("size", size) is { } s)
                settings = SmallThings.Refusal(s) is { } refusal ? Refused("size", size, ReasonWords.For(refusal, Units), settings) : settings with { SizeMm = s };
        }
        _settings = settings;
        return RegionsAsync(stop);
    }

    private DetailSettings Refused(string field, string typed, string error, DetailSettings settings)
    {
        Refuse(field, typed, error);
        return settings;
    }

    /// <summary>The card of a way to mend; it asks again while that is being tried.</summary>
    public async Task<IActionResult> OnGetCandidateAsync(int way, CancellationToken stop)
    {
        await LoadAsync(stop);
        if (Shown is not { } piece || Ways(piece).ElementAtOrDefault(way) is not { } how) return NotFound();
        await surveys.TryAsync(On, piece, Ways(piece), how, stop);
        return Partial("_CandidateCard", (this, piece, way, how));
    }

    /// <summary>Picture of a piece about its narrowest place, as it is (way −1) or as a way leaves it.</summary>
    public async Task<IActionResult> OnGetWindowAsync(int way, CancellationToken stop)
    {
        await LoadAsync(stop);
        if (Shown is not { } piece) return NotFound();
        var form = way < 0 ? piece : Ways(piece).ElementAtOrDefault(way) is { } how ? (await surveys.TryAsync(On, piece, Ways(piece), how, stop))?.Result?.Piece : null;
        return form is null ? NotFound() : Content(PieceWindow.Svg(form, WindowOf(piece), ColourOf(piece)), "image/svg+xml");
    }

    /// <summary>The part of a piece that its small pictures show: enough about the narrowest place to recognise it.</summary>
    private Box WindowOf(Piece piece)
    {
        if (WeakOf(piece).FirstOrDefault() is not { } worst) return piece.Size;
        var reach = Math.Clamp(worst.Place.ExtentMm * 0.8, 14 * Least(piece).Mm, 40 * Least(piece).Mm);
        var at = worst.Place.At;
        return new Box(at.X - reach, at.Y - reach * PieceWindow.Height / PieceWindow.Width, at.X + reach, at.Y + reach * PieceWindow.Height / PieceWindow.Width);
    }

    /// <summary>What an action would change of the shapes, to be laid over the table; nothing is changed.</summary>
    public IActionResult OnPostPreview(BenchAction action, [FromForm(Name = ActionBinder.ActOn)] string? on)
    {
        try
        {
            var after = Edits.Apply(Value, action.For(new BenchContext(Value, ActedOn(on), On.Drawer)), On.Drawer);
            return new JsonResult(new { paths = DetailScene.Differences(Value.Design, after.Design), refusal = "" });
        }
        catch (EditRefused e)
        {
            return new JsonResult(new { paths = Array.Empty<SceneDifference>(), refusal = ReasonWords.For(e, Units) });
        }
    }

    protected override void PickAfter(Edit edit, Core.Projects.Project before)
    {
        // A bridged island is a part of its host from now on.
        if (edit is BridgeIslands bridged && Islands.Find(before.Design, before.Design.Require(bridged.Pieces[0])) is { } island) Pick(Picked.OfPieces(island.Host.Id));
    }

    /// <summary>Where in its piece a place lies, in words: "upper left", "middle".</summary>
    public static string Where(Piece piece, Core.Geometry.Point at)
    {
        var box = piece.Size;
        static int Third(double share) => share < 0.36 ? 0 : share > 0.64 ? 2 : 1;
        var across = Third((at.X - box.MinX) / Math.Max(box.Width, 1e-9));
        var down = Third((at.Y - box.MinY) / Math.Max(box.Height, 1e-9));
        return (down, across) switch
        {
            (1, 1) => "middle",
            (1, 0) => "left",
            (1, 2) => "right",
            (0, 1) => "top",
            (2, 1) => "bottom",
            _ => $"{(down == 0 ? "upper" : "lower")} {(across == 0 ? "left" : "right")}",
        };
    }

    /// <summary>A width as the station shows it, to a hundredth of a millimetre.</summary>
    public static string Mm(double mm) => string.Create(CultureInfo.InvariantCulture, $"{mm:0.00} mm");

    /// <summary>The action that mends in a way.</summary>
    public static ThickenAction ActionFor(Thicken how) => new(how.AmountMm, how.IsEven, how.KeptGapMm, how.Corners == Corners.Sharp);

    /// <summary>The action that keeps a form mended in a way aside.</summary>
    public static KeepThickenedAction KeepingAction(Thicken how, string name) => new(how.AmountMm, name, how.IsEven, how.KeptGapMm, how.Corners == Corners.Sharp);
}
