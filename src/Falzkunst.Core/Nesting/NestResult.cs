using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting;

/// <summary>The answer to a job: sheets used in order, and what found no place.</summary>
public sealed record NestResult(ImmutableArray<NestedSheet> Sheets, ImmutableArray<NotNested> Left);

/// <summary>One sheet used.</summary>
/// <param name="Sheet">Id of its kind.</param>
/// <param name="Number">1 for the first sheet of its kind.</param>
/// <param name="Placements">The copies on it.</param>
public sealed record NestedSheet(string Sheet, int Number, ImmutableArray<NestPlacement> Placements)
{
    /// <summary>The share of the sheet's whole area that is paper of pieces, 0 to 1.</summary>
    public double Filled(NestJob job) =>
        Placements.Sum(p => job.Pieces.First(q => q.Id == p.Id).Area) / job.Sheets.First(s => s.Id == Sheet).PaperArea;
}

/// <summary>One copy.</summary>
/// <param name="Id">Id of its piece.</param>
/// <param name="Copy">1 for the first copy.</param>
/// <param name="Place">From the piece's coordinates to the sheet's.</param>
/// <param name="Degrees">The turn in it, after any mirroring.</param>
/// <param name="Mirrored">x became -x before the turn.</param>
public sealed record NestPlacement(string Id, int Copy, Affine Place, double Degrees, bool Mirrored);

/// <summary>Copies left over, and why.</summary>
public sealed record NotNested(string Id, int Copies, Unfit Why);
