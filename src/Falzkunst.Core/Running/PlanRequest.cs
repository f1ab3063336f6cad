using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;

namespace Falzkunst.Core.Running;

/// <summary>
/// What a plan is asked for with: the same for a run, for one that runs parts again, and for files, so that none of them forgets the
/// marks of a printed sheet.
/// </summary>
/// <param name="Sheet">The sheet.</param>
/// <param name="Design">The pieces on it, as they are made.</param>
/// <param name="Machine">The machine.</param>
/// <param name="Stock">The stock of the sheet.</param>
/// <param name="ScoreClearanceMm">How far scores stop short of every cut, mm.</param>
/// <param name="Printed">How the sheet is printed before it is laid; null where it is not.</param>
public sealed record PlanRequest(SheetLayout Sheet, Design Design, Machine Machine, Stock Stock, double ScoreClearanceMm, PagePrinting? Printed)
{
    /// <summary>Some lines alone are run, those that failed say; null for all.</summary>
    public RunAgain? Again { get; init; }
}

/// <summary>Lines that run again, with the settings they have or others.</summary>
/// <param name="Wanted">Which lines of which copies.</param>
/// <param name="ForceGrams">Another force; null as it is set.</param>
/// <param name="Times">Another number of times over; null as it is set.</param>
public sealed record RunAgain(IReadOnlySet<(string Piece, int Copy, string Line)> Wanted, int? ForceGrams, int? Times);
