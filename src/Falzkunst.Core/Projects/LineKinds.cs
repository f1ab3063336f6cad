using System.Collections.Immutable;
using Falzkunst.Core.Designs;

namespace Falzkunst.Core.Projects;

/// <summary>Lines of a piece that look alike and do the same: one card in the tray.</summary>
/// <param name="Name">A name for people.</param>
/// <param name="Operation">Their operation.</param>
/// <param name="Look">Their look.</param>
/// <param name="Lines">Ids of the lines.</param>
/// <param name="LengthMm">Length of all of them together.</param>
/// <param name="Ink">Colour of pen or foil.</param>
/// <param name="Manner">How they are worked; null for the plain way.</param>
public sealed record LineKind(
    string Name, Operation Operation, Look Look, ImmutableArray<string> Lines, double LengthMm, string? Ink, Manner? Manner)
{
    /// <summary>The kinds of a piece: the outline's first, then in the order in which they were painted.</summary>
    public static List<LineKind> Of(Piece piece) =>
    [
        .. piece.Drawn
            .GroupBy(d => (d.Line.Look, d.Line.Operation, d.Line.Ink, d.Line.Manner))
            .Select(g => new LineKind(
                NameOf([.. g.Select(d => d.Line)]), g.Key.Operation, g.Key.Look,
                [.. g.Select(d => d.Line.Id)], g.Sum(d => d.Path.Length), g.Key.Ink, g.Key.Manner)),
    ];

    /// <summary>What is not plain about how they are worked, as it follows the operation: ", mountain fold, left out".</summary>
    public string MannerInWords()
    {
        if (Manner is not { } m) return "";
        var words = new List<string>();
        if (m.Fold is { } fold) words.Add($"{fold.ToString().ToLowerInvariant()} fold");
        if (m.HalfCut) words.Add("half cut");
        if (m.FromBack) words.Add("from the back");
        if (m.Fill is { } fill) words.Add($"filled {fill.Pattern.ToString().ToLowerInvariant()}");
        if (m.LeftOut) words.Add("left out");
        return string.Concat(words.Select(w => ", " + w));
    }

    private static string NameOf(List<Line> lines)
    {
        var outline = lines.Any(l => l.Role == LineRole.Outline);
        var openings = lines.Count(l => l.Role == LineRole.Opening);
        if (outline) return openings switch { 0 => "Outline", 1 => "Outline and opening", _ => "Outline and openings" };
        var names = lines.Select(l => l.Name).Distinct().ToList();
        if (names is [{ } single] && DefaultOperations.Stated(single) is null) return Readable(single);
        if (openings == lines.Count) return openings == 1 ? "Opening" : "Openings";
        if (lines[0].Look.Layer is { } layer && NameIn(layer) is { } name) return Readable(name);
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
