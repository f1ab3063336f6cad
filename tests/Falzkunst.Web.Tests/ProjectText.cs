using Falzkunst.Core.Designs;
using Falzkunst.Core.Projects;
using Falzkunst.Data.Json;

namespace Falzkunst.Web.Tests;

/// <summary>All of a project as one text, so that two of them can be compared bit for bit.</summary>
internal static class ProjectText
{
    public static string Write(Project project)
    {
        var rest = project with { Design = Design.Empty, Variants = [] };
        var design = project.Design;
        return string.Join('\n', [
            StoredJson.Write(rest), $"{design.NextPiece} {design.NextLoose} {StoredJson.Write(design.Findings)}",
            .. design.Loose.Select(l => $"{l}"), .. design.Pieces.SelectMany(PieceText),
            .. project.Variants.SelectMany(v => Variant(v))]);
    }

    private static IEnumerable<string> Variant(Variant v) => [$"{v.Number} {v.Name} {v.Of}", .. v.Pieces.SelectMany(PieceText)];

    private static IEnumerable<string> PieceText(Piece p) =>
    [
        $"{p.Id} {p.Name} {p.Stock} {p.Quantity} {p.Place} {p.NextItem} {p.Hidden} {p.Locked} {p.Art} {p.AllowedTurns}", $"{p.Outline}",
        .. p.Items.Select(i => $"{i}"), .. p.Drawn.Select(l => $"{l.Path}"),
    ];
}
