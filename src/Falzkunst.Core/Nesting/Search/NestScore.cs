namespace Falzkunst.Core.Nesting.Search;

/// <summary>
/// How good an answer is: first that everything lies somewhere, then few new sheets, then little paper; of the sheet whose
/// rest is largest only what is used from its upper edge down counts as paper.
/// </summary>
/// <param name="LeftArea">Area of the copies without a place, mm².</param>
/// <param name="NewSheets">Sheets begun that are no offcuts.</param>
/// <param name="Paper">Paper used, mm², and a little for what lies on the last sheet.</param>
internal readonly record struct NestScore(double LeftArea, int NewSheets, double Paper) : IComparable<NestScore>
{
    /// <summary>What the area of copies on the last board counts: of two equal rests the better is the one over less, which can become larger.</summary>
    private const double LittleOnLast = 0.01;

    public int CompareTo(NestScore other)
    {
        var left = LeftArea.CompareTo(other.LeftArea);
        if (left != 0) return left;
        var sheets = NewSheets.CompareTo(other.NewSheets);
        return sheets != 0 ? sheets : Paper.CompareTo(other.Paper);
    }

    public bool IsBetterThan(NestScore other) => CompareTo(other) < 0;

    /// <summary>The score of an arrangement without overlaps.</summary>
    public static NestScore Evaluate(Arrangement arrangement)
    {
        double left = 0, paper = 0;
        for (var i = 0; i < arrangement.Task.Copies.Length; i++) if (arrangement[i].Board < 0) left += arrangement.Task.Copies[i].Kind.Area;
        var newSheets = 0;
        for (var b = 0; b < arrangement.Task.Boards.Length; b++)
        {
            if (arrangement.On(b).Length == 0) continue;
            if (!arrangement.Task.Boards[b].Sheet.IsOffcut) newSheets++;
            paper += arrangement.Task.Boards[b].Sheet.PaperArea;
        }
        return new(left, newSheets, Last(arrangement) is { } last ? paper - Rest(arrangement, last) + LittleOnLast * arrangement.Area(last) : paper);
    }

    /// <summary>The board whose rest counts: of the new sheets, or where there are none of the offcuts, the one with the largest.</summary>
    public static int? Last(Arrangement arrangement)
    {
        int? best = null;
        var (bestIsNew, bestRest) = (false, 0.0);
        for (var b = 0; b < arrangement.Task.Boards.Length; b++)
        {
            if (arrangement.On(b).Length == 0) continue;
            var (isNew, rest) = (!arrangement.Task.Boards[b].Sheet.IsOffcut, Rest(arrangement, b));
            if (best is not null && (bestIsNew && !isNew || bestIsNew == isNew && rest <= bestRest)) continue;
            (best, bestIsNew, bestRest) = (b, isNew, rest);
        }
        return best;
    }

    private static double Rest(Arrangement arrangement, int board)
    {
        var b = arrangement.Task.Boards[board];
        return b.Sheet.PaperArea * Math.Max(0, b.Usable.MaxY - arrangement.Used(board)) / Math.Max(b.Usable.Height, 1e-9);
    }
}
