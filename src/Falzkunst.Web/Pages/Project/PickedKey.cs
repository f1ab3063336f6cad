using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Projects;

namespace Falzkunst.Web.Pages.Project;

/// <summary>
/// What is picked, as the page says it: pieces as "p1,p4", lines as "p1:l3,l5;p2:l1", "none" where nothing is. Many lines are
/// said in short: "l3~l90" from one to another in the order of the piece, "@1f2e3d4c5b" all of a kind on that piece. A key is
/// read in the revision that the page shows, so that it always means the same lines.
/// </summary>
public static class PickedKey
{
    public const string None = "none";

    /// <summary>A kind of fewer lines is said by its lines.</summary>
    private const int FewLines = 8;

    /// <summary>So many lines on end are said as a range.</summary>
    private const int LeastRange = 4;

    private const int LongestKey = 2_000_000;

    public static string Write(Picked picked, Design design) => picked.IsEmpty ? None
        : picked.IsLines ? string.Join(';', picked.Lines.Select(l => design.Find(l.Piece) is { } piece ? Write(piece, l.Ids) : $"{l.Piece}:{string.Join(',', l.Ids)}"))
        : string.Join(',', picked.Pieces);

    /// <summary>Lines of several pieces as a key.</summary>
    public static string Write(IEnumerable<PickedLines> lines, Design design) => string.Join(';', lines.Select(l => Write(design.Require(l.Piece), l.Ids)));

    /// <summary>Lines of one piece as a key.</summary>
    public static string Write(Piece piece, ImmutableArray<string> ids)
    {
        if (ids.Length <= FewLines) return $"{piece.Id}:{string.Join(',', ids)}";
        var left = ids.ToHashSet();
        var words = new List<string>();
        foreach (var kind in LineKind.OnPiece(piece).Where(k => k.Lines.Length > FewLines && k.Lines.All(left.Contains)))
        {
            words.Add("@" + kind.Key);
            left.ExceptWith(kind.Lines);
        }
        var order = InOrder(piece);
        for (var i = 0; i < order.Length; i++)
        {
            if (!left.Contains(order[i])) continue;
            var to = i;
            while (to + 1 < order.Length && left.Contains(order[to + 1])) to++;
            if (to - i + 1 >= LeastRange) words.Add($"{order[i]}~{order[to]}");
            else words.AddRange(order[i..(to + 1)]);
            i = to;
        }
        return $"{piece.Id}:{string.Join(',', words)}";
    }

    /// <summary>
    /// What a key names and is still there; the first piece where there is no key, as on a page just opened. Where all of it is
    /// gone nothing is picked, so that a second Delete does not take a piece that nobody chose.
    /// </summary>
    public static Picked Read(string? key, Design design)
    {
        if (key == None || design.Pieces.IsEmpty) return Picked.Nothing;
        if (string.IsNullOrEmpty(key)) return Picked.OfPieces(design.Pieces[0].Id);
        if (key.Length > LongestKey) return Picked.Nothing;
        if (!key.Contains(':', StringComparison.Ordinal)) return Picked.OfPieces([.. key.Split(',')]).In(design);
        return Picked.OfLines([.. key.Split(';').Select(part => part.Split(':', 2)).Where(p => p.Length == 2).Select(p => new PickedLines(p[0], Ids(p[0], p[1], design)))]).In(design);
    }

    private static ImmutableArray<string> Ids(string id, string words, Design design)
    {
        if (design.Find(id) is not { } piece) return [];
        var order = new Lazy<ImmutableArray<string>>(() => InOrder(piece));
        var kinds = new Lazy<Dictionary<string, LineKind>>(() => LineKind.OnPiece(piece).ToDictionary(k => k.Key));
        return [.. words.Split(',').SelectMany(word =>
        {
            if (word.StartsWith('@')) return kinds.Value.TryGetValue(word[1..], out var kind) ? kind.Lines : [];
            var ends = word.Split('~');
            if (ends.Length != 2) return [word];
            var (from, to) = (order.Value.IndexOf(ends[0]), order.Value.IndexOf(ends[1]));
            return from >= 0 && to >= from ? order.Value[from..(to + 1)] : ImmutableArray<string>.Empty;
        })];
    }

    private static ImmutableArray<string> InOrder(Piece piece) => [.. piece.Drawn.Select(l => l.Id).Distinct()];
}
