using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting.Search;

/// <summary>Where a copy lies: on which board, in which of its kind's orientations, and where its middle is there. Board -1 is nowhere.</summary>
internal readonly record struct Pose(int Board, int Orientation, double X, double Y)
{
    public static readonly Pose Nowhere = new(-1, 0, 0, 0);
}

/// <summary>A job made ready: kinds, copies and boards by number.</summary>
internal sealed class NestTask
{
    public NestTask(NestJob job)
    {
        Job = job;
        var kinds = new PieceKind[job.Pieces.Length];
        Parallel.For(0, kinds.Length, OnAllCores.OfCaller, i => kinds[i] = new PieceKind(job.Pieces[i], i, job.SpacingMm));
        Kinds = kinds;
        var copies = new List<Copy>();
        var groups = new Dictionary<string, int>();
        foreach (var kind in kinds)
        {
            var group = kind.Piece.Together is { } word ? groups.TryGetValue(word, out var known) ? known : groups[word] = groups.Count : -1;
            for (var n = 1; n <= kind.Piece.Quantity; n++) copies.Add(new Copy(kind, n, group));
        }
        Copies = [.. copies];
        GroupCount = groups.Count;
        var pinned = job.Pins.GroupBy(p => p.Sheet).ToDictionary(g => g.Key, g => g.Max(p => p.Number));
        Boards = [.. job.Sheets
            .SelectMany(s => Board.All(s, Math.Max(copies.Count, pinned.GetValueOrDefault(s.Id))))
            .OrderByDescending(b => b.Sheet.IsOffcut).ThenByDescending(b => Math.Round(b.Room)).ThenBy(b => job.Sheets.IndexOf(b.Sheet)).ThenBy(b => b.Number)];
        Pins = new Pose?[Copies.Length];
        foreach (var pin in job.Pins)
        {
            var copy = Array.FindIndex(Copies, c => c.Kind.Piece.Id == pin.Piece && c.Number == pin.Copy);
            var board = Array.FindIndex(Boards, b => b.Sheet.Id == pin.Sheet && b.Number == pin.Number);
            if (copy < 0 || board < 0) continue;
            var at = pin.Place.Apply(Copies[copy].Kind.Middle);
            Pins[copy] = new Pose(board, Copies[copy].Kind.OrientationOf(pin.Place), at.X, at.Y);
        }
    }

    public NestJob Job { get; }
    public PieceKind[] Kinds { get; }
    public Copy[] Copies { get; }

    /// <summary>Offcuts before new sheets, large before small.</summary>
    public Board[] Boards { get; }

    /// <summary>For each copy its kept place, if it has one.</summary>
    public Pose?[] Pins { get; }

    public int GroupCount { get; }

    /// <summary>One copy of a kind.</summary>
    /// <param name="Kind">What it is a copy of.</param>
    /// <param name="Number">1 for the first.</param>
    /// <param name="Group">Copies of the same group lie on one board; -1 for none.</param>
    public sealed record Copy(PieceKind Kind, int Number, int Group);
}
