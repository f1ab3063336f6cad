using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;

namespace Falzkunst.Core.Building;

/// <summary>Pieces with a list as the pieces that are made: one for each row, with what follows from it.</summary>
public static class NameLists
{
    private static readonly ConditionalWeakTable<Design, Design> Known = [];

    /// <summary>What was made of a piece and its followers, for as long as that piece lives.</summary>
    private static readonly ConditionalWeakTable<Piece, Made> MadeOf = [];

    private sealed record Made(ImmutableArray<Piece> Group, ImmutableArray<Design> Rows);

    /// <summary>
    /// The design with each piece that has a list, and each piece that follows one, in the place of all its rows. Ids of those are made of
    /// the piece's and the row's number, so that they stay what they are while rows come and go. A design without lists is itself.
    /// </summary>
    public static Design Expanded(Design design) => design.Pieces.All(p => p.List is null) ? design : Known.GetValue(design, Expand);

    private static Design Expand(Design design)
    {
        var rowsOf = new Dictionary<string, List<Piece>>();
        foreach (var piece in design.Pieces.Where(p => p.List is not null))
        {
            ImmutableArray<Piece> group = [piece, .. Following.Followers(design, piece.Id).Select(design.Require).Where(p => p.List is null && p.Follows!.Sources.All(s => s == piece.Id || rowsOf.ContainsKey(s) || design.Require(s).List is null))];
            var made = MadeOf.TryGetValue(piece, out var known) && Following.AreSame(known.Group, group) ? known : null;
            if (made is null) MadeOf.AddOrUpdate(piece, made = new Made(group, RowsOf(design, group)));
            foreach (var member in group.Where(m => !rowsOf.ContainsKey(m.Id))) rowsOf[member.Id] = [];
            for (var i = 0; i < made.Rows.Length; i++)
            {
                var row = piece.List!.Rows[i];
                foreach (var member in made.Rows[i].Pieces)
                {
                    var whose = NameList.PieceOf(member.Id);
                    // Parts of words that only this row has belong to its main piece.
                    (rowsOf.TryGetValue(whose, out var there) ? there : rowsOf[piece.Id]).Add(member with { Quantity = member.Quantity * row.Copies });
                }
            }
        }
        return design with { Pieces = [.. design.Pieces.SelectMany(p => rowsOf.TryGetValue(p.Id, out var rows) ? rows : [p])] };
    }

    private static ImmutableArray<Design> RowsOf(Design design, ImmutableArray<Piece> group)
    {
        var list = group[0].List!;
        var rows = new Design[list.Rows.Length];
        Parallel.For(0, rows.Length, OnAllCores.OfCaller, i => rows[i] = RowOf(design, group, list, i));
        return [.. rows];
    }

    private static Design RowOf(Design design, ImmutableArray<Piece> group, NameList list, int at)
    {
        var row = list.Rows[at];
        var ids = group.Select(p => p.Id).ToHashSet();
        string? IdOf(string id) => ids.Contains(id) ? NameList.RowId(id, row) : id;
        ImmutableArray<Piece> pieces =
        [
            .. group.Select((p, i) => p with
            {
                Id = NameList.RowId(p.Id, row),
                Name = i == 0 ? NameList.NameOf(row) : $"{p.Name}, {NameList.NameOf(row)}",
                List = null,
                Items = i == 0 ? [.. p.Items.Select(item => item is TextItem text ? text.ForRow(list, at) : item)] : p.Items,
                Follows = p.Follows?.Renamed(IdOf),
            }),
        ];
        // What the group follows beside its own is there to be asked, and goes again.
        var others = group.SelectMany(p => p.Follows?.Sources ?? []).Where(s => !ids.Contains(s)).Distinct().Select(design.Require).ToList();
        var (own, foreign) = (pieces.Select(p => p.Id).ToHashSet(), others.Select(p => p.Id).ToHashSet());
        var made = Following.MadeAnew(new Design([.. others, .. pieces], [], [], design.NextPiece));
        var number = 1;
        return made with { Pieces = [.. made.Pieces.Where(p => !foreign.Contains(p.Id)).Select(p => own.Contains(p.Id) ? p : Part(p, ++number))] };

        // Words of this row fall into more parts than those that are shown.
        Piece Part(Piece piece, int part) => piece with { Id = $"{NameList.RowId(group[0].Id, row)}x{part}", Name = $"{NameList.NameOf(row)}, part {part}" };
    }
}
