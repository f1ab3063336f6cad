using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Editing;

/// <summary>Which part of a box lines up.</summary>
public enum AlignEdge
{
    Left,
    Centre,
    Right,
    Top,
    Middle,
    Bottom,
}

/// <summary>What things are lined up with.</summary>
public enum AlignTo
{
    EachOther,
    Card,
    Piece,
}

/// <summary>Lining up and spreading evenly, by the upright boxes on the card.</summary>
public static class Aligning
{
    /// <summary>Lines up each thing with the box of all of them, the open card, or (lines only) their piece.</summary>
    /// <exception cref="EditRefused">There is nothing to line up with.</exception>
    public static Design Align(Project project, Picked what, AlignEdge edge, AlignTo to)
    {
        var design = project.Design;
        var boxes = what.Boxes(design);
        var target = to switch
        {
            AlignTo.Card => Box.FromSize(project.SetOut.Card.OpenWidth, project.SetOut.Card.OpenHeight),
            AlignTo.Piece when what.IsLines => Picked.OfPieces(what.OnlyPiece()).Box(design),
            AlignTo.Piece => throw new EditRefused(Reason.AlignLinesOnly),
            _ when boxes.Length < 2 => throw new EditRefused(Reason.AlignTwo),
            _ => what.Box(design),
        };
        return Arranging.Map(design, what, i => Affine.Move(Shift(boxes[i], target, edge)));
    }

    /// <summary>Equal gaps between the things, from the first to the last as they lie; those two stay.</summary>
    /// <exception cref="EditRefused">There are fewer than three.</exception>
    public static Design Distribute(Design design, Picked what, bool across)
    {
        var boxes = what.Boxes(design);
        if (boxes.Length < 3) throw new EditRefused(Reason.SpreadThree);
        (double Low, double High) Span(int i) => across ? (boxes[i].MinX, boxes[i].MaxX) : (boxes[i].MinY, boxes[i].MaxY);
        var order = Enumerable.Range(0, boxes.Length).OrderBy(i => Span(i).Low + Span(i).High).ToList();
        var free = Span(order[^1]).High - Span(order[0]).Low - order.Sum(i => Span(i).High - Span(i).Low);
        var gap = free / (boxes.Length - 1);
        var shifts = new double[boxes.Length];
        var at = Span(order[0]).Low;
        foreach (var i in order)
        {
            shifts[i] = at - Span(i).Low;
            at += Span(i).High - Span(i).Low + gap;
        }
        return Arranging.Map(design, what, i => across ? Affine.Move(shifts[i], 0) : Affine.Move(0, shifts[i]));
    }

    private static Point Shift(Box box, Box target, AlignEdge edge) => edge switch
    {
        AlignEdge.Left => new(target.MinX - box.MinX, 0),
        AlignEdge.Centre => new(target.Centre.X - box.Centre.X, 0),
        AlignEdge.Right => new(target.MaxX - box.MaxX, 0),
        AlignEdge.Top => new(0, target.MinY - box.MinY),
        AlignEdge.Middle => new(0, target.Centre.Y - box.Centre.Y),
        AlignEdge.Bottom => new(0, target.MaxY - box.MaxY),
        _ => throw new ArgumentOutOfRangeException(nameof(edge)),
    };
}
