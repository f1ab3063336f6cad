using Falzkunst.Core.Designs;
using Falzkunst.Web.Desk;

namespace Falzkunst.Web.Pages.Project;

/// <summary>A stop of the route that a project takes.</summary>
public sealed record Station(string Name, string Page, string Purpose)
{
    public static readonly Station SetOut = new("Set-out", "/Project/SetOut/SetOut", "Settle the card, the machine and how many.");
    public static readonly Station Art = new("Art", "/Project/Art/Art", "Bring drawings in and see what is in them.");
    public static readonly Station Pieces = new("Pieces", "/Project/Pieces/Pieces", "Give each piece its stock and each line its operation.");
    public static readonly Station Build = new("Build", "/Project/Build/Build", "Make layers, frames and stacks of pieces; join and part them.");
    public static readonly Station Detail = new("Detail", "/Project/Detail/Detail", "See what is too thin for its stock, and mend it.");
    public static readonly Station Print = new("Print", "/Project/Print/Print", "Lay printed pieces on pages and print them, with marks or plain.");
    public static readonly Station Sheets = new("Sheets", "/Project/Sheets/Sheets", "Put the pieces on sheets of their stock.");
    public static readonly Station Run = new("Run", "/Project/Run/Run", "Carry the sheets out, stop by stop.");

    public static readonly IReadOnlyList<Station> Route = [SetOut, Art, Pieces, Build, Detail, Print, Sheets, Run];

    /// <summary>The name as files have it.</summary>
    public string Key => Name.Replace("-o", "O", StringComparison.Ordinal);

    /// <summary>What there is to do here has been done.</summary>
    public bool IsDone(OnDesk on, SurveyDesk detail) => this switch
    {
        _ when this == SetOut => true,
        _ when this == Build => on.Value.Design.Pieces.Any(p => p.Follows is not null),
        _ when this == Art || this == Pieces => !on.Value.Design.Pieces.IsEmpty,
        _ when this == Detail => !on.Value.Design.Pieces.IsEmpty && detail.ThinPieces(on) == 0,
        _ when this == Print => on.Value.SheetsAreCurrent && PrintDesk.Stocks(on.Value).ToList() is { Count: > 0 } stocks && stocks.TrueForAll(on.Value.SetOut.Printing.ContainsKey),
        _ when this == Sheets => on.Value.SheetsAreCurrent && on.Value.Sheets!.Unplaced.IsEmpty,
        _ => false,
    };

    /// <summary>The finding is about what was brought in, and not about a piece.</summary>
    public static bool IsForArt(Finding finding) => finding.Piece is null;

    /// <summary>Findings that wait here.</summary>
    public int Waiting(OnDesk on, SurveyDesk detail) => this switch
    {
        _ when this == Art => on.Findings.Count(IsForArt),
        _ when this == Pieces => on.Findings.Count(f => !IsForArt(f)),
        // Nothing is shown while the pieces are still being looked at.
        _ when this == Detail => detail.ThinPieces(on) ?? 0,
        _ when this == Print => PrintDesk.Findings(on).Count(),
        _ when this == Sheets => on.Value.Sheets?.Unplaced.Length ?? 0,
        _ => 0,
    };
}
