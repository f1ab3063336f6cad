using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>How lines of text stand to each other.</summary>
public enum TextAlign
{
    Left,
    Centre,
    Right,
}

/// <summary>
/// Words that stay words. No face is at hand in the core, so no line follows from them here: they are moved, scaled, mirrored,
/// stored and undone with their piece, and keep it from being nested on its face.
/// </summary>
/// <param name="Id">Id of the item.</param>
/// <param name="Words">The text; lines are parted by line feeds.</param>
/// <param name="Face">Key of the face.</param>
/// <param name="CapitalMm">Height of capital letters before <paramref name="Place"/>, mm.</param>
/// <param name="Operation">What a tool does along its outlines.</param>
/// <param name="Place">From the text's box to the piece.</param>
/// <param name="Width">Width of the box, mm.</param>
/// <param name="Height">Height of the box, mm.</param>
public sealed record TextItem(
    string Id, string Words, string Face, double CapitalMm, Operation Operation, Affine Place, double Width, double Height) : PlacedItem(Id, Place, Width, Height)
{
    public TextAlign Align { get; init; }

    /// <summary>Added between letters, in thousandths of the capital height.</summary>
    public int LetterSpacing { get; init; }

    /// <summary>From baseline to baseline, in capital heights.</summary>
    public double LineSpacing { get; init; } = 1.6;

    public override ImmutableArray<Line> LinesOn(Piece piece) => [];
}
