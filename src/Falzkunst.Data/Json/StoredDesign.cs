using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Data.Json;

/// <summary>
/// A design as it is stored: the paths of a piece's lines are a part of their own, named here by hash, and what many lines have
/// in common is written once.
/// </summary>
internal sealed record StoredDesign(
    ImmutableArray<StoredStyle> Styles, ImmutableArray<StoredPiece> Pieces, ImmutableArray<StoredLoose> Loose, ImmutableArray<Finding> Findings,
    int NextPiece, int NextLoose)
{
    /// <summary>Pictures; what was stored before there were any has none.</summary>
    public StoredPictures? Pictures { get; init; }

    public static StoredDesign From(Design design)
    {
        var styles = new StyleTable();
        return new(
            default, [.. design.Pieces.Select(p => StoredPiece.From(p, styles))],
            [.. design.Loose.Select(l => new StoredLoose(StoredLine.From(l, styles), l.Path))], design.Findings, design.NextPiece, design.NextLoose)
        {
            Styles = styles.All,
            Pictures = design.NextPicture > 1 ? new StoredPictures(design.Pictures, design.NextPicture) : null,
        };
    }

    public Design With(IReadOnlyDictionary<string, PieceShape> shapes) => new(
        [.. Pieces.Select(p => p.With(shapes, Styles))], [.. Loose.Select(l => l.Line.With(l.Path, Styles))], Findings, NextPiece)
    {
        NextLoose = NextLoose,
        Pictures = Pictures?.All ?? [],
        NextPicture = Pictures?.Next ?? 1,
    };
}

/// <summary>The pictures of a design, and the number of the next.</summary>
internal sealed record StoredPictures(ImmutableArray<CardPicture> All, int Next);

/// <summary>What is known of lines apart from their names and where they run.</summary>
internal sealed record StoredStyle(Look Look, Operation Operation, string? Ink = null, [property: JsonPropertyName("manner")] LineSettings? Settings = null, bool? SizeLocked = null, Guid? Art = null, PrintLook? Painted = null);

/// <summary>A line without its path.</summary>
internal sealed record StoredLine(string Id, int Style, string? Name = null, int? Shape = null)
{
    public static StoredLine From(Line line, StyleTable styles) => new(line.Id, styles.NumberOf(line), line.Name, line.Shape);

    public Line With(Path path, ImmutableArray<StoredStyle> styles)
    {
        var style = styles[Style];
        return new Line(Id, path, style.Operation, style.Look, Name, style.Ink) { Settings = style.Settings, SizeLocked = style.SizeLocked ?? false, Art = style.Art, Painted = style.Painted, Shape = Shape };
    }
}

/// <summary>A line on no piece.</summary>
internal sealed record StoredLoose(StoredLine Line, Path Path);

/// <summary>An item: a line, or one of another kind.</summary>
internal sealed record StoredItem(StoredLine? Line = null, Item? Made = null);

internal sealed record StoredPiece(
    string Id, string Name, string Stock, int Quantity, Affine Place, string Shape, StoredLine Outline, ImmutableArray<StoredItem> Items, int NextItem,
    bool? Hidden = null, bool? Locked = null, Guid? Art = null, [property: JsonPropertyName("lie")] AllowedTurns? AllowedTurns = null,
    [property: JsonPropertyName("base")] bool? IsBase = null, Derivation? Follows = null, NameList? List = null)
{
    public static StoredPiece From(Piece p, StyleTable styles) => new(
        p.Id, p.Name, p.Stock, p.Quantity, p.Place, p.OwnShape.Hash, StoredLine.From(p.Outline, styles),
        [.. p.Items.Select(i => i is Line line ? new StoredItem(StoredLine.From(line, styles)) : new StoredItem(Made: i))], p.NextItem,
        p.Hidden ? true : null, p.Locked ? true : null, p.Art, p.AllowedTurns == default ? null : p.AllowedTurns, p.IsBase ? true : null, p.Follows, p.List);

    /// <summary>The piece; its lines get the paths of its shape in their order.</summary>
    public Piece With(IReadOnlyDictionary<string, PieceShape> shapes, ImmutableArray<StoredStyle> styles)
    {
        var paths = shapes[Shape].Paths;
        var next = 1;
        return new Piece(Id, Name, Stock, Quantity, Place, Outline.With(paths[0], styles), [.. Items.Select(i => i.Line?.With(paths[next++], styles) ?? i.Made!)])
        {
            NextItem = NextItem,
            Hidden = Hidden ?? false,
            Locked = Locked ?? false,
            Art = Art,
            AllowedTurns = AllowedTurns ?? default,
            IsBase = IsBase ?? false,
            Follows = Follows,
            List = List,
        };
    }
}

/// <summary>A variant as it is stored.</summary>
internal sealed record StoredVariant(int Number, string Name, string? Of, ImmutableArray<StoredPiece> Pieces);

/// <summary>All variants of a project as one part.</summary>
internal sealed record StoredVariants(ImmutableArray<StoredStyle> Styles, ImmutableArray<StoredVariant> All)
{
    public static StoredVariants From(ImmutableArray<Variant> variants)
    {
        var styles = new StyleTable();
        return new(default, [.. variants.Select(v => new StoredVariant(v.Number, v.Name, v.Of, [.. v.Pieces.Select(p => StoredPiece.From(p, styles))]))]) { Styles = styles.All };
    }

    public ImmutableArray<Variant> With(IReadOnlyDictionary<string, PieceShape> shapes) =>
        [.. All.Select(v => new Variant(v.Number, v.Name, v.Of, [.. v.Pieces.Select(p => p.With(shapes, Styles))]))];
}

/// <summary>Styles in the order in which they are met first.</summary>
internal sealed class StyleTable
{
    private readonly Dictionary<StoredStyle, int> _numbers = [];

    public ImmutableArray<StoredStyle> All => [.. _numbers.OrderBy(s => s.Value).Select(s => s.Key)];

    public int NumberOf(Line line)
    {
        var style = new StoredStyle(line.Look, line.Operation, line.Ink, line.Settings, line.SizeLocked ? true : null, line.Art, line.Painted);
        if (!_numbers.TryGetValue(style, out var number)) _numbers[style] = number = _numbers.Count;
        return number;
    }
}
