using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Designs;

/// <summary>The pieces of a card, lowest layer first, and what lies on none of them.</summary>
/// <param name="Pieces">All pieces, lowest first.</param>
/// <param name="Loose">Lines that lie on no piece, in the card's coordinates.</param>
/// <param name="Findings">What assembling left out; what is to be said of the pieces as they are is computed by the checks.</param>
/// <param name="NextPiece">Number of the next piece that comes in; ids are never used twice.</param>
public sealed record Design(
    ImmutableArray<Piece> Pieces,
    ImmutableArray<Line> Loose,
    ImmutableArray<Finding> Findings,
    int NextPiece)
{
    public static readonly Design Empty = new([], [], [], 1);

    /// <summary>Number of the next line that comes in on no piece; ids are never used twice.</summary>
    public int NextLoose { get; init; } = 1;

    /// <summary>The pictures that were brought in, oldest first.</summary>
    public ImmutableArray<CardPicture> Pictures { get; init; } = [];

    /// <summary>Number of the next picture that comes in; ids are never used twice.</summary>
    public int NextPicture { get; init; } = 1;

    /// <exception cref="EditRefused">There is no such picture.</exception>
    public CardPicture RequirePicture(string id) => Pictures.FirstOrDefault(p => p.Id == id) ?? throw new EditRefused(Reason.PictureGone);

    public Piece? Find(string id) => Pieces.FirstOrDefault(p => p.Id == id);

    /// <exception cref="EditRefused">There is no such piece.</exception>
    public Piece Require(string id) => Find(id)
        ?? throw new EditRefused(Reason.PieceGone);

    /// <summary>The design with one piece changed.</summary>
    /// <exception cref="EditRefused">There is no such piece.</exception>
    public Design With(string id, Func<Piece, Piece> change)
    {
        var piece = Require(id);
        return this with { Pieces = Pieces.Replace(piece, change(piece)) };
    }

    /// <summary>The design with new pieces somewhere; they get ids of their own.</summary>
    /// <param name="at">Index of the layer that the first of them gets.</param>
    /// <param name="pieces">The pieces.</param>
    public Design Plus(int at, IReadOnlyCollection<Piece> pieces) => this with
    {
        Pieces = Pieces.InsertRange(at, pieces.Select((p, i) => p with { Id = PieceId(NextPiece + i) })),
        NextPiece = NextPiece + pieces.Count,
    };

    /// <summary>The design with further lines on no piece; they get ids of their own.</summary>
    public Design PlusLoose(params IEnumerable<Line> lines)
    {
        var numbered = lines.Select((l, i) => l with { Id = string.Create(CultureInfo.InvariantCulture, $"x{NextLoose + i}") }).ToList();
        return this with { Loose = [.. Loose, .. numbered], NextLoose = NextLoose + numbered.Count };
    }

    /// <summary>The id of the piece of a number.</summary>
    internal static string PieceId(int number) => string.Create(CultureInfo.InvariantCulture, $"p{number}");
}
