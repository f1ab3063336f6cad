using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
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

    /// <summary>Three ways: with few nodes, as was asked for, and with every wobble.</summary>
    public static async Task<IReadOnlyList<TraceCandidate>> ForAsync(PictureDesk desk, CardPicture picture, TraceSettings settings, CancellationToken stop)
    {
        var made = new List<TraceCandidate>();
        foreach (var (name, smooth) in new[] { ("Few nodes", settings.SmoothMm * Times), ("As drawn", settings.SmoothMm), ("Every wobble", settings.SmoothMm / Times) })
        {
            var how = settings with { SmoothMm = Math.Clamp(Math.Round(smooth, 3), TraceSettings.LeastSmoothMm, TraceSettings.MostSmoothMm) };
            try
            {
                var traced = await desk.TraceShownAsync(picture, how, stop);
                made.Add(new TraceCandidate(name, how, traced, traced.Lines.Paths.Any() ? null : new EditRefused(Reason.NothingTraced)) { MmPerDot = picture.SizeMm.Width / traced.PixelsAcross });
            }
            catch (EditRefused refused)
            {
                made.Add(new TraceCandidate(name, how, null, refused) { MmPerDot = picture.MmPerDot });
            }
        }
        return made;
    }
}
