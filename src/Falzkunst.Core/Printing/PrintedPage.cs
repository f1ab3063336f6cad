using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing;

/// <summary>One side of a sheet as a printer prints it, mm from its upper left corner.</summary>
/// <param name="Width">Of the page, mm.</param>
/// <param name="Height">Of the page, mm.</param>
/// <param name="Copies">The pieces on it.</param>
/// <param name="Marks">Registration marks, areas in pure black.</param>
/// <param name="Trims">Where a hand trims, thin black lines.</param>
/// <param name="Trim">The box round all cuts.</param>
/// <param name="Bleed">The box round all print.</param>
/// <param name="Label">Where there is room for a line of words with a rule of 100 mm; null where there is none.</param>
public sealed record PrintedPage(
    double Width, double Height, ImmutableArray<PrintedCopy> Copies, ImmutableArray<Path> Marks, ImmutableArray<Path> Trims, Box Trim, Box Bleed, Box? Label);

/// <summary>A piece as it is printed, and where.</summary>
/// <param name="Piece">Id of the piece.</param>
/// <param name="Copy">Which copy.</param>
/// <param name="Place">From the piece's coordinates to the page's.</param>
/// <param name="What">What is printed of it.</param>
public sealed record PrintedCopy(string Piece, int Copy, Affine Place, PrintedPiece What);

/// <summary>What is printed of a piece, in its coordinates.</summary>
/// <param name="Piece">The piece.</param>
/// <param name="Layers">Its layers, lowest first.</param>
/// <param name="Bleed">What goes on past the cut.</param>
/// <param name="Clip">Nothing is printed outside; without what is left out because upper layers hide it.</param>
/// <param name="BleedMm">How far it goes on, mm.</param>
public sealed record PrintedPiece(Piece Piece, ImmutableArray<PrintLayer> Layers, Bled Bleed, Region Clip, double BleedMm);
