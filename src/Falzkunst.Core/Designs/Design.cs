using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>The pieces of a card, lowest layer first, and what lies on none of them.</summary>
/// <param name="Pieces">All pieces, lowest first.</param>
/// <param name="Loose">Lines that lie on no piece, in the card's coordinates.</param>
/// <param name="Findings">What assembling left out; what is to be said of the pieces as they are is computed by the checks.</param>
/// <param name="NextPiece">Number of the next piece that comes in; ids are never used twice.</param>
public sealed record Design(
    ImmutableArray<Piece> Pieces,
    ImmutableArray<LooseLine> Loose,
    ImmutableArray<Finding> Findings,
    int NextPiece)
{
    public static readonly Design Empty = new([], [], [], 1);

    public Piece? Find(string id) => Pieces.FirstOrDefault(p => p.Id == id);

    /// <exception cref="EditRefused">There is no such piece.</exception>
    public Piece Require(string id) => Find(id)
        ?? throw new EditRefused("That piece is no longer in the project. Reload the page to see what is there now.");

    /// <summary>The design with one piece changed.</summary>
    /// <exception cref="EditRefused">There is no such piece.</exception>
    public Design With(string id, Func<Piece, Piece> change)
    {
        var piece = Require(id);
        return this with { Pieces = Pieces.Replace(piece, change(piece)) };
    }
}

/// <summary>A line on no piece.</summary>
public sealed record LooseLine(Line Line, Path Path);

/// <summary>How much a finding matters.</summary>
public enum Severity
{
    Minor,
    Major,
}

/// <summary>Something that the checks point out.</summary>
/// <param name="Code">Stable short code, lower case with hyphens.</param>
/// <param name="Severity">How much it matters.</param>
/// <param name="Message">One sentence with the numbers.</param>
/// <param name="Piece">Id of the piece, if it is about one.</param>
/// <param name="Line">Id of the line within the piece, or of the line on no piece, if it is about one.</param>
/// <param name="At">The place in the card's coordinates, mm.</param>
public sealed record Finding(string Code, Severity Severity, string Message, string? Piece, string? Line, Point? At);

/// <summary>An edit that cannot be done, with a sentence for the person who asked for it.</summary>
public sealed class EditRefused(string message) : Exception(message);
