using System.Collections.Immutable;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Measures;

namespace Falzkunst.Core.Commands;

/// <summary>Commands for the project as a whole, whatever is picked.</summary>
internal static class ProjectCommands
{
    public static readonly ImmutableArray<Command> All =
    [
        new("cards", "cards 12", "How many cards are made.", (_, w) => new CardsAction(w.Count("how many"))),
        new("card", "card 127 177.8", "Another size for the folded card: width, height.", (_, w) => new CardSizeAction(w.Length("a width"), w.Length("a height"))),
        new("units", "units inches", "Lengths in mm, inches, or inches in eighths.", (_, w) =>
            new UnitsAction(w.OneOf("mm, inches or eighths", ("mm", Units.Millimetres), ("inches", Units.Inches), ("eighths", Units.InchEighths)))),
        new("clearance", "clearance 1", "How far scores stop short of every cut.", (_, w) => new ClearanceAction(w.Length("a distance"))),
        new("base", "base kraft 240", "Makes the base piece of a stock: outline and folds of the card as it is set.", (c, w) => new BaseAction(PieceCommands.StockNamed(c, w.Rest("a stock")))),
        new("fit base", "fit base", "Changes the base piece to the card as it is set now.", (_, _) => new FitBaseAction()),
        new("put on sheets", "put on sheets 2", "Puts all pieces on sheets of their stock, so far from each other.", (c, w) =>
            new PutOnSheetsAction(w.HasMore ? w.Length("a distance") : c.Project.SetOut.SpacingMm)),
    ];
}
