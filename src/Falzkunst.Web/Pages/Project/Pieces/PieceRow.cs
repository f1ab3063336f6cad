using System.Runtime.CompilerServices;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Checking;
using Microsoft.AspNetCore.Mvc.Rendering;

namespace Falzkunst.Web.Pages.Project;

/// <summary>A piece's row in the ledger, with all that it shows.</summary>
/// <param name="Piece">The piece.</param>
/// <param name="Layer">From the lowest, 1.</param>
/// <param name="Stock">Name of its stock; null where that is gone.</param>
/// <param name="Colour">Its colour.</param>
/// <param name="Findings">How many the checks have of it.</param>
/// <param name="IsMajor">One of them is grave.</param>
/// <param name="IsPicked">It is picked.</param>
public sealed record PieceRow(Piece Piece, int Layer, string? Stock, string Colour, int Findings, bool IsMajor, bool IsPicked)
{
    /// <summary>Id and version, by which the page says that it has the row.</summary>
    public string? Seen { get; init; }
}

/// <summary>A row as text. Whether it is picked is no part of its version: the page shows that by itself.</summary>
public sealed record PieceRowText(string Id, string Version, string Html)
{
    /// <summary>By this the page says that it has the row.</summary>
    public string Seen => $"{Id}.{Version}";
}

/// <summary>The rows of all pieces. Those of pieces that have not changed are not made anew, nor sent to a page that has them.</summary>
public static class PieceRows
{
    private const int VersionLength = 10;

    private static readonly ConditionalWeakTable<Piece, Kept> Known = [];

    private sealed record Kept(PieceRow Row, PieceRowText Text);

    public static async Task<IReadOnlyList<PieceRowText>> OfAsync(IHtmlHelper html, BenchPage model)
    {
        var findings = model.On.Findings.Where(f => f.Piece is not null).ToLookup(f => f.Piece!);
        var picked = model.Picked.PieceIds.ToHashSet();
        var rows = new List<PieceRowText>();
        foreach (var (i, piece) in model.Value.Design.Pieces.Index())
        {
            var row = new PieceRow(
                piece, i + 1, model.StockOf(piece)?.Name, model.ColourOf(piece), findings[piece.Id].Count(),
                findings[piece.Id].Any(f => f.Severity == Severity.Major), picked.Contains(piece.Id));
            if (!Known.TryGetValue(piece, out var kept) || kept.Row != row)
            {
                kept = new Kept(row, await RenderAsync(html, row));
                Known.AddOrUpdate(piece, kept);
            }
            rows.Add(kept.Text);
        }
        return rows;
    }

    /// <summary>The rows that a page lacks that has these; null where it has other pieces, or in another order.</summary>
    public static IReadOnlyList<PieceRowText>? Missing(IReadOnlyList<PieceRowText> rows, string? seen)
    {
        var has = (seen ?? "").Split(' ');
        if (has.Length != rows.Count || !rows.Select(r => r.Id).SequenceEqual(has.Select(h => h.Split('.')[0]))) return null;
        return [.. rows.Where((r, i) => r.Seen != has[i])];
    }

    private static async Task<PieceRowText> RenderAsync(IHtmlHelper html, PieceRow row)
    {
        var version = ContentHash.Short(await html.TextAsync("_PieceRow", row with { IsPicked = false }), VersionLength);
        var text = new PieceRowText(row.Piece.Id, version, "");
        return text with { Html = await html.TextAsync("_PieceRow", row with { Seen = text.Seen }) };
    }
}
