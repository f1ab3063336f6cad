using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting;

/// <summary>Pieces of one stock to be put on its sheets.</summary>
/// <param name="Sheets">The sheets at hand, first choice first among those alike.</param>
/// <param name="Pieces">What to place.</param>
/// <param name="SpacingMm">Least distance between two copies, mm; borders and blocked zones are only not entered.</param>
public sealed record NestJob(ImmutableArray<NestSheet> Sheets, ImmutableArray<NestPiece> Pieces, double SpacingMm)
{
    /// <summary>Copies that already have their place and keep it; they count among the copies of their piece.</summary>
    public ImmutableArray<NestPin> Pins { get; init; } = [];
}

/// <summary>A kind of sheet and how many there are, mm.</summary>
/// <param name="Id">Names the kind within the job.</param>
/// <param name="Width">Of the sheet, or of the box of an offcut.</param>
/// <param name="Height">Of the sheet, or of the box of an offcut.</param>
/// <param name="Borders">Strips along the sides of width and height that nothing enters.</param>
/// <param name="Count">How many of it there are.</param>
public sealed record NestSheet(string Id, double Width, double Height, Borders Borders, int Count)
{
    /// <summary>The true outline of an offcut within width and height; null for a whole sheet.</summary>
    public Path? Outline { get; init; }

    /// <summary>Strip inside the true outline that nothing enters, mm.</summary>
    public double OutlineBorderMm { get; init; }

    /// <summary>Zones that nothing enters: registration marks, damaged corners.</summary>
    public ImmutableArray<Path> Blocked { get; init; } = [];

    /// <summary>A rest of an earlier sheet: using it costs no new paper.</summary>
    public bool IsOffcut { get; init; }

    /// <summary>The box within its borders.</summary>
    public Box Usable => Borders.Within(Width, Height);

    /// <summary>The paper's whole area, mm².</summary>
    public double PaperArea => Outline is null ? Width * Height : Math.Abs(Outline.SignedArea);
}

/// <summary>A piece by its outline in its own coordinates, and how many of it are wanted.</summary>
public sealed record NestPiece(string Id, Path Outline, int Quantity)
{
    /// <summary>Cut-outs, in which other copies may lie.</summary>
    public ImmutableArray<Path> Openings { get; init; } = [];

    /// <summary>The turns it may lie in.</summary>
    public Turns Turns { get; init; } = Turns.Quarters;

    /// <summary>It may lie on its face: the stock's back equals its front.</summary>
    public bool MayMirror { get; init; }

    /// <summary>Net area, mm².</summary>
    public double Area => Math.Abs(Outline.SignedArea) - Openings.Sum(o => Math.Abs(o.SignedArea));

    /// <summary>Copies of pieces with the same word here lie on one sheet.</summary>
    public string? Together { get; init; }
}

/// <summary>A copy that keeps its place.</summary>
/// <param name="Piece">Id of the piece.</param>
/// <param name="Copy">1 for its first copy.</param>
/// <param name="Sheet">Id of the kind of sheet.</param>
/// <param name="Number">1 for the first sheet of that kind.</param>
/// <param name="Place">From the piece's coordinates to the sheet's; rigid, or rigid and mirrored.</param>
public sealed record NestPin(string Piece, int Copy, string Sheet, int Number, Affine Place);
