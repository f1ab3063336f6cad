using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Editing;

/// <summary>The card itself as a piece: outline and folds of the open card, lowest of all.</summary>
public static class BasePiece
{
    /// <summary>Sizes and folds closer than this are the same, mm.</summary>
    private const double SameMm = 0.01;

    /// <summary>The base piece of a design; null where none was made.</summary>
    public static Piece? Of(Design design) => design.Pieces.FirstOrDefault(p => p.IsBase);

    /// <summary>Outline and folds of the piece are those of the card as it is set.</summary>
    public static bool IsAsSet(Piece piece, CardFormat card)
    {
        var folds = Folds(card).Select(f => f.Bounds).ToList();
        var own = FoldLines(piece).Select(l => l.Path.Bounds).ToList();
        return Math.Abs(piece.Size.Width - card.OpenWidth) < SameMm && Math.Abs(piece.Size.Height - card.OpenHeight) < SameMm
            && folds.Count == own.Count && folds.TrueForAll(f => own.Exists(o => o.Contains(f, SameMm) && f.Contains(o, SameMm)));
    }

    /// <summary>The design with the base made, below all other pieces; loose lines that lie on it are its own.</summary>
    /// <exception cref="EditRefused">There is one already, or no such stock.</exception>
    internal static Design Make(Project project, MakeBase edit, Drawer drawer)
    {
        if (Of(project.Design) is not null) throw new EditRefused(Reason.BaseThere);
        var (card, design) = (project.SetOut.Card, project.Design);
        var outline = Drawn(Path.Rectangle(0, 0, card.OpenWidth, card.OpenHeight), Operation.Cut, "base");
        var piece = Piece.FromLines("", PieceNaming.Wished("Card base", design), drawer.Stock(edit.Stock).Key, Affine.Identity, [outline, .. Folds(card).Select(Fold)]) with { IsBase = true };
        var number = design.NextPiece;
        return LooseLines.GiveToPiecesUnder(design.Plus(0, [piece]), pieces: new HashSet<string> { Design.PieceId(number) });
    }

    /// <summary>The design with outline and folds of the base as the card is now; what else is on it stays where it is on the card.</summary>
    /// <exception cref="EditRefused">There is no such piece, or it is locked.</exception>
    internal static Design Fit(Project project, FitBase edit) => project.Design.With(edit.Piece, piece =>
    {
        Arranging.Unlocked(piece);
        var card = project.SetOut.Card;
        // The upper left corner stays where it lies; a base that was turned is set upright again.
        var corner = piece.Outline.Path.BoundsUnder(piece.Place).Min;
        var there = Affine.Move(corner);
        var toNew = piece.Place.Then(there.Inverse());
        var old = FoldLines(piece).Select(l => l.Id).ToHashSet();
        var settings = piece.Lines.FirstOrDefault(l => old.Contains(l.Id))?.Settings;
        var rest = piece.Items.Where(i => !old.Contains(i.Id)).Select(i => i.Under(toNew)).ToImmutableArray();
        var fitted = piece with { Place = there, Outline = piece.Outline with { Path = Path.Rectangle(0, 0, card.OpenWidth, card.OpenHeight) }, Items = rest };
        return fitted.Plus(Folds(card).Select(path => Fold(path) with { Settings = settings }));
    });

    private const string FoldName = "card fold";

    private static IEnumerable<Line> FoldLines(Piece piece) => piece.Lines.Where(l => l.Name == FoldName && l.Operation == Operation.Score);

    private static IEnumerable<Path> Folds(CardFormat card) => card.Folds.Select(f => Path.Polyline([f.From, f.To], closed: false));

    private static Line Fold(Path path) => Drawn(path, Operation.Score, FoldName);

    private static Line Drawn(Path path, Operation operation, string name) =>
        new("", path, operation, Look.DrawnHere with { Closed = path.IsClosed }, name, null);
}
