using Falzkunst.Core.Building;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Projects;

namespace Falzkunst.Core.Editing;

/// <summary>What one touch does about a finding.</summary>
/// <param name="Words">What the button says.</param>
/// <param name="Edit">The edit.</param>
public sealed record Mend(string Words, Edit Edit)
{
    /// <summary>The ways to mend a finding, the usual one first; none where only the crafter can know.</summary>
    public static IReadOnlyList<Mend> For(Finding finding, Design design) => finding switch
    {
        { Code: FindingCodes.OpenOutline, Piece: { } piece, Line: { } line } when design.Require(piece).Find(line) is not null => [new("Close it", new CloseOutline(piece, line))],
        { Code: FindingCodes.PastEdge, Piece: { } piece, Line: { } line } when IsInner(design, piece, line) => [new("End it at the edge", new EndAtEdge(piece, line, ShareOut: false))],
        { Code: FindingCodes.AcrossPieces, Piece: { } piece, Line: { } line } when IsInner(design, piece, line) =>
        [
            new("Give each piece its part", new EndAtEdge(piece, line, ShareOut: true)),
            new("End it at the edge", new EndAtEdge(piece, line, ShareOut: false)),
        ],
        { Code: FindingCodes.DoubledLine or FindingCodes.NoLength, Piece: { } piece, Line: { } line } when IsInner(design, piece, line) =>
            [new(finding.Code == FindingCodes.NoLength ? "Take it away" : "Take one away", new RemoveLines([new(piece, [line])]))],
        { Code: FindingCodes.WordsTooWide, Piece: { } piece, Line: { } line } when design.Find(piece)?.Worked(line) is TextItem { Along: null } text =>
            [new("Make them smaller to fit", new ChangeText(piece, text with { Shrinks = true }, TextPart.Box))],
        { Code: FindingCodes.WordsFallApart, Piece: { } piece } when design.Find(piece) is { Follows: FromWords words } main && main.Worked(words.Text) is TextItem text =>
        [
            new("Bridge them", new TieWords(piece, WordTie.Bridges, WordShapes.UsualTieMm(WordTie.Bridges, text.CapitalMm * text.Place.MeanScale, 1))),
            new("Set them on a bar", new TieWords(piece, WordTie.Bar, WordShapes.UsualTieMm(WordTie.Bar, text.CapitalMm * text.Place.MeanScale, 1))),
        ],
        { Code: FindingCodes.CannotFollow, Piece: { } piece } => [new("Make it plain", new MakePiecesPlain([piece]))],
        { Code: FindingCodes.NoArea, Piece: { } scrap } => [new("Take it out", new RemovePieces([scrap]))],
        { Code: FindingCodes.InsideAnother, Piece: { } piece } when HostOf(design, piece) is { } host => [new("Make it an opening", new MergePieces([host, piece]))],
        { Code: FindingCodes.OnNoPiece, Line: { } line } =>
        [
            .. NearestTo(design, line) is { } piece ? new[] { new Mend($"Give it to {piece.Name}", new GiveLines(null, [line], piece.Id)) } : [],
            new("Take it away", new RemoveLoose([line])),
        ],
        _ => [],
    };

    private static bool IsInner(Design design, string piece, string line) => design.Find(piece) is { } p && p.Outline.Id != line && p.Worked(line) is not null;

    private static string? HostOf(Design design, string piece)
    {
        var inner = design.Find(piece);
        return inner is null ? null : design.Pieces
            .Where(p => p.Id != piece && p.Stock == inner.Stock && Designs.Checking.Checks.Holds(p, inner))
            .MinBy(p => p.Size.Area)?.Id;
    }

    private static Piece? NearestTo(Design design, string loose)
    {
        if (design.Loose.FirstOrDefault(l => l.Id == loose) is not { } line) return null;
        var at = line.Path.Bounds.Centre;
        return design.Pieces.MinBy(p =>
        {
            var box = p.Outline.Path.BoundsUnder(p.Place);
            return new Geometry.Point(Math.Max(0, Math.Max(box.MinX - at.X, at.X - box.MaxX)), Math.Max(0, Math.Max(box.MinY - at.Y, at.Y - box.MaxY))).Length;
        });
    }
}
