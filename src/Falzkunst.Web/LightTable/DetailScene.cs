using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Web.Desk;

namespace Falzkunst.Web.LightTable;

/// <summary>The scene of the Detail station: one piece as it lies on the card, its thin places, and the loose islands in it.</summary>
public static class DetailScene
{
    /// <summary>Shapes are compared to a micrometre.</summary>
    private const int Decimals = 3;

    private const string Layout = "detail";

    /// <summary>Of a project without pieces.</summary>
    public static Scene Empty(OnDesk on) => SceneBuilder.SomePieces(on, Layout, [], [], []);

    /// <summary>Builds it.</summary>
    /// <param name="on">The project.</param>
    /// <param name="shown">The piece.</param>
    /// <param name="places">Its thin places in the order of their numbers.</param>
    /// <param name="least">What its stock bears.</param>
    /// <param name="islands">Loose islands in it, or it in its host.</param>
    public static Scene Build(OnDesk on, Piece shown, ImmutableArray<WidthCourse> places, LeastWidth least, IReadOnlyList<Island> islands)
    {
        IEnumerable<Piece> others = islands.SelectMany(i => new[] { i.Host, i.Piece }).Where(p => p.Id != shown.Id);
        var pieces = others.Prepend(shown).DistinctBy(p => p.Id).OrderBy(on.Value.Design.Pieces.IndexOf).ToList();
        var stock = on.Drawer.Stocks.FirstOrDefault(s => s.Key == shown.Stock)?.Name ?? shown.Stock;
        var pins = places.Select((c, i) => Pin(i + 1, shown, c.Place, stock, least)).ToList();
        var widths = places.Where(c => DetailCache.IsWeak(c.Place)).SelectMany(c => c.Lines).Select(line => new SceneWidths([.. line.SelectMany(w => Numbers(shown.Place.Apply(w.At), w.WidthMm))]));
        return SceneBuilder.SomePieces(on, Layout, pieces, pins, [.. widths], least.Mm);
    }

    private static ScenePin Pin(int number, Piece piece, ThinPlace place, string stock, LeastWidth least)
    {
        var at = piece.Place.Apply(place.At);
        var message = place.Kind switch
        {
            ThinKind.Gap => string.Create(CultureInfo.InvariantCulture, $"{place.WidthMm:0.00} mm of air here over {place.ExtentMm:0.0} mm"),
            ThinKind.Hole => string.Create(CultureInfo.InvariantCulture, $"An opening {place.WidthMm:0.00} mm wide"),
            _ => string.Create(CultureInfo.InvariantCulture, $"{place.WidthMm:0.00} mm here over {place.ExtentMm:0.0} mm"),
        };
        var note = string.Create(CultureInfo.InvariantCulture, $"{stock} bears {least.Mm:0.00} mm{(least.IsOwn ? " as set here" : "")}");
        return new ScenePin(number, at.X, at.Y, DetailCache.IsWeak(place) ? "major" : "minor", message, piece.Id) { Note = note, Reach = place.ExtentMm };
    }

    private static double[] Numbers(Point at, double width) => [Math.Round(at.X, 3), Math.Round(at.Y, 3), Math.Round(width, 3)];

    /// <summary>
    /// What one design has and the other has not: the former and the present edges of all pieces that changed or went, in one, and
    /// each piece that came.
    /// </summary>
    public static IReadOnlyList<SceneDifference> Differences(Design before, Design after)
    {
        var changed = before.Pieces.Where(p => after.Find(p.Id) is { } now && !ReferenceEquals(now.Paper, p.Paper)).ToList();
        var gone = before.Pieces.Where(p => after.Find(p.Id) is null).ToList();
        var come = after.Pieces.Where(p => before.Find(p.Id) is null);
        // In one path, so that a piece that went into another does not show as something new there.
        var edges = string.Concat(changed.Concat(gone).Concat(changed.Select(p => after.Find(p.Id)!)).Select(Edges));
        return [.. edges.Length > 0 ? [new SceneDifference(edges, IsNew: false)] : Array.Empty<SceneDifference>(), .. come.Select(p => new SceneDifference(Edges(p), IsNew: true))];
    }

    private static string Edges(Piece piece) => string.Concat(PieceWidths.Rings(piece).Select(p => PathText.Write(p.Map(piece.Place), Decimals)));
}

/// <summary>What would be different.</summary>
/// <param name="Path">Path data on the card, to be filled even-odd.</param>
/// <param name="IsNew">A whole new piece, which others may lie on.</param>
public sealed record SceneDifference(string Path, bool IsNew);
