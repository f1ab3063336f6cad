using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Tracing;
using Falzkunst.Web.Desk;

namespace Falzkunst.Web.Pictures;

/// <summary>One way to trace a picture, carried out on what the screen shows of it.</summary>
/// <param name="Name">What it is called.</param>
/// <param name="Settings">How.</param>
/// <param name="Traced">What was traced; null where it cannot be.</param>
/// <param name="Refusal">Why it cannot be.</param>
public sealed record TraceCandidate(string Name, TraceSettings Settings, PictureTraced? Traced, EditRefused? Refusal)
{
    /// <summary>How much smoother and how much finer the ways beside the one asked for are.</summary>
    private const double Times = 3;

    private const int Decimals = 1;

    /// <summary>Millimetres of a dot of what was traced.</summary>
    public required double MmPerDot { get; init; }

    /// <summary>Its paths for the screen: path data, colour, and whether it is a stroke.</summary>
    public IEnumerable<object> Shown => Traced is null ? [] : Traced.Lines.Areas.Select(a => (object)new { d = string.Concat(a.Openings.Prepend(a.Outline).Select(p => PathText.Write(p, Decimals))), colour = Settings.Mode == TraceMode.Colours ? a.Colour : "", stroke = false })
        .Concat(Traced.Lines.Lines.Select(l => (object)new { d = PathText.Write(l.Path, Decimals), colour = "", stroke = true }));

    /// <summary>How long its lines are together, mm.</summary>
    public double LengthMm => Traced is null ? 0 : Traced.Lines.Paths.Sum(p => p.Length) * MmPerDot;

    /// <summary>The usual width of the strokes whose middle was traced, mm; 0 for none.</summary>
    public double StrokeMm => Traced is { Lines.Lines: [_, ..] lines } ? lines.Select(l => l.Width).Order().ElementAt(lines.Length / 2) * MmPerDot : 0;

    /// <summary>The width of the narrowest part where that is less than the stock bears, mm; null where all is wide enough, or was not measured.</summary>
    public double? NarrowestMm { get; private init; }

    /// <summary>What the stock bears that these pieces would be on.</summary>
    public LeastWidth? Bears { get; private init; }

    /// <summary>Of more segments than this the narrowest part is not looked for while somebody waits: Detail does it.</summary>
    private const int MostMeasured = 3000;

    private TraceCandidate Measured(Project project, Drawer drawer)
    {
        if (Traced is null || Settings.Mode is not (TraceMode.Areas or TraceMode.Rim) || Traced.Lines.Segments > MostMeasured) return this;
        var bears = LeastWidth.ForStock(project.SetOut, drawer.StockFor(null), drawer);
        var map = Affine.Scale(MmPerDot, MmPerDot);
        var thin = Traced.Lines.Areas.SelectMany(a => WidthSurvey.ThinPlaces([.. a.Openings.Prepend(a.Outline).Select(p => p.Map(map))], bears.Mm))
            .Where(t => t.Kind is ThinKind.Neck or ThinKind.Strand).Select(t => (double?)t.WidthMm).Min();
        return this with { NarrowestMm = thin, Bears = bears };
    }

    /// <summary>Three ways: with few nodes, as was asked for, and with every wobble.</summary>
    public static async Task<IReadOnlyList<TraceCandidate>> ForAsync(PictureDesk desk, CardPicture picture, TraceSettings settings, Project project, Drawer drawer, CancellationToken stop)
    {
        var made = new List<TraceCandidate>();
        foreach (var (name, smooth) in new[] { ("Few nodes", settings.SmoothMm * Times), ("As drawn", settings.SmoothMm), ("Every wobble", settings.SmoothMm / Times) })
        {
            var how = settings with { SmoothMm = Math.Clamp(Math.Round(smooth, 3), TraceSettings.LeastSmoothMm, TraceSettings.MostSmoothMm) };
            try
            {
                var traced = await desk.TraceShownAsync(picture, how, stop);
                var candidate = new TraceCandidate(name, how, traced, traced.Lines.Paths.Any() ? null : new EditRefused(Reason.NothingTraced)) { MmPerDot = picture.SizeMm.Width / traced.PixelsAcross };
                made.Add(await Task.Run(() => candidate.Measured(project, drawer), stop));
            }
            catch (EditRefused refused)
            {
                made.Add(new TraceCandidate(name, how, null, refused) { MmPerDot = picture.MmPerDot });
            }
        }
        return made;
    }
}
