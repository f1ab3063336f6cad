namespace Falzkunst.Core.Designs;

/// <summary>The cut whose ties are worked on one by one.</summary>
public static class HeldLine
{
    /// <summary>The one picked line, or the outline of the one picked piece, where it is a cut with ties; null where it is none.</summary>
    public static (Piece Piece, Line Line)? Find(Design design, Picked picked)
    {
        var id = picked switch
        {
            { IsLines: true, Lines: [{ Piece: var piece, Ids.Length: 1 }] } => piece,
            { IsLines: false, Pieces: [var piece] } => piece,
            _ => null,
        };
        if (id is null || design.Find(id) is not { } found) return null;
        var line = picked.IsLines ? found.Drawn.FirstOrDefault(l => l.Id == picked.Lines[0].Ids[0]) : found.Outline;
        return line is { Operation: Operation.Cut, Settings.Hold: not null } ? (found, line) : null;
    }
}
