using System.Collections.Immutable;
using System.Globalization;
using System.Runtime.CompilerServices;
using Falzkunst.Core.Designs.Assembling;

namespace Falzkunst.Core.Designs;

/// <summary>Lines of a piece that look alike and do the same: one card in the tray.</summary>
/// <param name="Name">A name for people.</param>
/// <param name="Operation">Their operation.</param>
/// <param name="Look">Their look.</param>
/// <param name="Lines">Ids of the lines.</param>
/// <param name="LengthMm">Length of all of them together.</param>
/// <param name="Ink">Colour of pen or foil.</param>
/// <param name="Settings">How they are worked; null for the plain way.</param>
/// <param name="Key">Short text that tells the kind from other kinds, the same on all pieces.</param>
public sealed record LineKind(
    string Name, Operation Operation, Look Look, ImmutableArray<string> Lines, double LengthMm, string? Ink, LineSettings? Settings, string Key)
{
    /// <summary>The kinds of a piece: the outline's first, then in the order in which they were painted.</summary>
    public static ImmutableArray<LineKind> OnPiece(Piece piece) => Known.GetValue(piece, static p => new Found([.. Groups(p).Select(g => FromLines(p, [.. g]))])).All;

    /// <summary>A page asks for the kinds of a piece several times, and a piece may have tens of thousands of lines.</summary>
    private static readonly ConditionalWeakTable<Piece, Found> Known = [];

    private sealed record Found(ImmutableArray<LineKind> All);

    /// <summary>The kinds of several pieces, each with the pieces that have lines of it; first come those of the first piece.</summary>
    public static List<(LineKind Kind, ImmutableArray<PickedLines> On)> OnPieces(IReadOnlyList<Piece> pieces) =>
    [
        .. pieces.SelectMany(p => OnPiece(p).Select(k => (Piece: p, Kind: k))).GroupBy(k => k.Kind.Key).Select(same =>
        {
            var all = same.First().Kind with { Lines = [.. same.SelectMany(s => s.Kind.Lines)], LengthMm = same.Sum(s => s.Kind.LengthMm) };
            return (all, same.Select(s => new PickedLines(s.Piece.Id, s.Kind.Lines)).ToImmutableArray());
        }),
    ];

    /// <summary>Short text that tells the kind of a line from other kinds, the same on all pieces; a layer's made-up name tells nothing.</summary>
    public static string KeyOf(Line line)
    {
        var (look, operation, ink, settings) = WhatTells(line);
        var text = string.Create(CultureInfo.InvariantCulture, $"{look}|{operation}|{ink}|{settings}");
        return ContentHash.Short(text, KeyLength);
    }

    /// <summary>Enough that two kinds of one project do not meet by chance.</summary>
    private const int KeyLength = 10;

    private static IEnumerable<IGrouping<(Look, Operation, string?, LineSettings?), Line>> Groups(Piece piece) =>
        piece.Drawn.GroupBy(WhatTells);

    private static (Look Look, Operation Operation, string? Ink, LineSettings? Settings) WhatTells(Line line)
    {
        var look = line.Look.Layer is { } layer && PieceNames.IsMadeUp(layer) ? line.Look with { Layer = null } : line.Look;
        return (look, line.Operation, line.Ink, line.Settings);
    }

    private static LineKind FromLines(Piece piece, List<Line> lines)
    {
        var first = lines[0];
        return new LineKind(NameOf(piece, lines), first.Operation, first.Look, [.. lines.Select(l => l.Id).Distinct()], lines.Sum(l => l.Path.Length), first.Ink, first.Settings, KeyOf(first));
    }

    /// <summary>What is not plain about how they are worked, as it follows the operation: ", mountain fold, left out".</summary>
    public string MannerInWords()
    {
        if (Settings is not { } m) return "";
        var words = new List<string>();
        if (m.Fold is { } fold) words.Add($"{fold.ToString().ToLowerInvariant()} fold");
        if (m.HalfCut) words.Add("half cut");
        if (m.FromBack) words.Add("from the back");
        if (m.Fill is { } fill) words.Add($"filled {fill.Pattern.ToString().ToLowerInvariant()}");
        if (m.LeftOut) words.Add("left out");
        return string.Concat(words.Select(w => ", " + w));
    }

    private static string NameOf(Piece piece, List<Line> lines)
    {
        var outline = lines.Any(l => piece.RoleOf(l) == LineRole.Outline);
        var openings = lines.Count(l => piece.RoleOf(l) == LineRole.Opening);
        if (outline) return openings switch { 0 => "Outline", 1 => "Outline and opening", _ => "Outline and openings" };
        var names = lines.Select(l => l.Name).Distinct().ToList();
        if (names is [{ } single] && !PieceNames.IsMadeUp(single) && DefaultOperations.Stated(single) is null) return Readable(single);
        if (openings == lines.Count) return openings == 1 ? "Opening" : "Openings";
        if (lines[0].Look.Layer is { } layer && !PieceNames.IsMadeUp(layer) && NameIn(layer) is { } name) return Readable(name);
        return lines[0].Operation switch
        {
            Operation.Score => lines.Count == 1 ? "Fold" : "Folds",
            Operation.Draw => "Pen work",
            Operation.Foil => "Foil work",
            Operation.Emboss => "Embossing",
            Operation.Perforate => "Perforation",
            Operation.Print => "Printed",
            Operation.Aid => lines.Count == 1 ? "Aid" : "Aids",
            _ => lines.Count == 1 ? "Slit" : "Slits",
        };
    }

    /// <summary>What a layer calls its lines: its name, or what follows an operation's word in it; null where that says nothing.</summary>
    private static string? NameIn(string layer)
    {
        if (DefaultOperations.Stated(layer) is null) return layer;
        var hyphen = layer.IndexOf('-', StringComparison.Ordinal);
        return hyphen < 0 || string.IsNullOrWhiteSpace(layer[(hyphen + 1)..]) ? null : layer[(hyphen + 1)..];
    }

    private static string Readable(string name)
    {
        var words = name.Replace('-', ' ').Replace('_', ' ').Trim();
        return words.Length == 0 ? name : char.ToUpperInvariant(words[0]) + words[1..];
    }
}
