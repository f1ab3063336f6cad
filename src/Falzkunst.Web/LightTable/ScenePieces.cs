using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using System.Text.Json;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Printing;
using Falzkunst.Core.Projects;
using Falzkunst.Web.Desk;

namespace Falzkunst.Web.LightTable;

/// <summary>Pieces as they are drawn. A piece is a value: what was made ready for it once serves until it is another.</summary>
internal static class ScenePieces
{
    /// <summary>Path data on screen is rounded to a micrometre.</summary>
    public const int Decimals = 3;

    private const int VersionLength = 12;

    private static readonly ConditionalWeakTable<Piece, Drawn> Known = [];

    /// <summary>Path data of shapes; a shape never changes, and is asked for at every edit of any piece.</summary>
    private static readonly ConditionalWeakTable<PieceShape, IReadOnlyList<string>> ShapeTexts = [];

    private sealed record Drawn(double Clearance, Units Units, string Fill, ScenePiece Piece);

    /// <summary>A piece of the project on the desk.</summary>
    public static ScenePiece Draw(OnDesk on, Piece piece)
    {
        var (clearance, units, fill) = (on.Value.SetOut.ScoreClearanceMm, on.Value.SetOut.Units, on.Drawer.ColourOf(piece.Stock));
        if (Known.TryGetValue(piece, out var known) && known.Clearance == clearance && known.Units == units && known.Fill == fill) return known.Piece;
        var made = Draw(piece, clearance, units, fill);
        Known.AddOrUpdate(piece, new Drawn(clearance, units, fill, made));
        return made;
    }

    /// <summary>Longest side of a picture on the table, dots; ten of them are held in some 60 MB.</summary>
    private const int PictureSide = 1200;

    private static List<ScenePrint>? PrintsOn(Piece piece) => PrintedArt.On(piece).Select(layer => layer switch
    {
        FillLayer fill => new ScenePrint { Path = Data(fill.Rings), Fill = fill.Colour, EvenOdd = fill.EvenOdd, Shading = fill.Shading is { } s ? new SceneShading(Numbers(s.Place), [.. s.Stops.Select(stop => stop.At)], [.. s.Stops.Select(stop => stop.Colour)], s.Kind == ShadingKind.Radial ? [s.FocusX, s.FocusY] : null) : null },
        StrokeLayer stroke => new ScenePrint { Path = Data(stroke.Strokes), Stroke = stroke.Colour, Width = stroke.WidthMm, Round = stroke.RoundEnds },
        PictureLayer { Picture: var i } => new ScenePrint { Picture = new ScenePicture($"?handler=Dots&picture={i.Of}&side={PictureSide}&v={i.Key}", Numbers(i.Place), i.Width, i.Height, i.IsPattern) },
        _ => throw new ArgumentOutOfRangeException(nameof(piece), layer.GetType().Name, "Unknown layer."),
    }).ToList() is { Count: > 0 } made ? made : null;

    private static string Data(ImmutableArray<Core.Geometry.Path> paths) => string.Concat(paths.Select(p => PathText.Write(p, Decimals)));

    /// <summary>Path data of the lines of some pieces, by the hash of their shape.</summary>
    public static Dictionary<string, IReadOnlyList<string>> Shapes(IEnumerable<Piece> pieces) => pieces
        .DistinctBy(p => p.Shape.Hash)
        .ToDictionary(p => p.Shape.Hash, p => ShapeTexts.GetValue(p.Shape, s => [.. s.Paths.Select(path => PathText.Write(path, Decimals))]));

    public static double[] Numbers(Affine m) => [m.A, m.B, m.C, m.D, m.E, m.F];

    private static ScenePiece Draw(Piece piece, double clearance, Units units, string fill)
    {
        var size = piece.Size;
        var kinds = new Dictionary<(Look, Operation, string?, LineSettings?), string>();
        string KindOf(Line l)
        {
            var key = (l.Look, l.Operation, l.Ink, l.Settings);
            return kinds.TryGetValue(key, out var kind) ? kind : kinds[key] = LineKind.KeyOf(l);
        }
        var drawn = new ScenePiece(
            piece.Name, piece.Shape.Hash, fill,
            [.. piece.Drawn.Select(l => new SceneLine(l.Id, l.Operation.Word(), RoleLetter(piece, l), l.Ink, MarkOf(l), KindOf(l)))],
            ScoresOf(piece, clearance),
            Written(AreaFills.Strokes(piece).SelectMany(f => f.Value.Select(path => (f.Key, path))).Concat(TieMarks.Of(piece).SelectMany(t => t.Value.Select(path => (t.Key, path))))),
            new SceneSize(size.MinX, size.MinY, size.Width, size.Height, Length.Show(size.Width, units), Length.Show(size.Height, units)),
            Numbers(piece.Place), piece.Locked)
        { Reach = ReachOf(piece), Prints = PrintsOn(piece) };
        var version = ContentHash.Compute(JsonSerializer.SerializeToUtf8Bytes((piece.Id, drawn), Whole))[..VersionLength];
        return drawn with { Version = version };
    }

    /// <summary>The box round outline and lines, where some lie past the outline's.</summary>
    private static double[]? ReachOf(Piece piece)
    {
        var reach = piece.Drawn.Aggregate(piece.Size, (box, line) => box.Include(line.Path.Bounds));
        return reach == piece.Size ? null : [reach.MinX, reach.MinY, reach.Width, reach.Height];
    }

    private static Dictionary<string, string> Written(IEnumerable<(string Line, Core.Geometry.Path Path)> strokes) => strokes
        .GroupBy(s => s.Line, s => PathText.Write(s.Path, Decimals)).ToDictionary(g => g.Key, string.Concat);

    private static readonly JsonSerializerOptions Whole = new() { IncludeFields = true };

    private static Dictionary<string, string> ScoresOf(Piece piece, double clearance)
    {
        var drawn = piece.Drawn.ToLookup(l => l.Id, l => l.Path);
        var held = piece.Drawn.Where(l => l.Settings?.Hold is not null).GroupBy(l => l.Id).Select(g => (Key: g.Key, Value: g.SelectMany(l => HeldCuts.Runs(l).AsEnumerable()).ToImmutableArray()));
        return ScoreEnds.Fit(piece, clearance).Select(s => (s.Key, s.Value)).Concat(held)
            .Where(s => !s.Value.SequenceEqual(drawn[s.Key]))
            .ToDictionary(s => s.Key, s => string.Concat(s.Value.Select(p => PathText.Write(p, Decimals))));
    }

    private static string? MarkOf(Line line)
    {
        var way = line.EffectiveSettings;
        var mark = (way.Fold switch { FoldDirection.Valley => "v", FoldDirection.Mountain => "m", _ => "" })
            + (way.HalfCut ? "h" : "") + (way.FromBack ? "b" : "") + (way.LeftOut ? "o" : "") + (line.SizeLocked ? "s" : "");
        return mark.Length == 0 ? null : mark;
    }

    private static string RoleLetter(Piece piece, Line line) => piece.RoleOf(line) switch { LineRole.Outline => "o", LineRole.Opening => "p", _ => "i" };
}
