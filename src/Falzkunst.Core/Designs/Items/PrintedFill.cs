using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>A colour printed over all of a piece's paper. It follows the paper, and no tool runs it.</summary>
/// <param name="Id">Id of the item.</param>
/// <param name="Colour">#rrggbb.</param>
public sealed record PrintedFill(string Id, string Colour) : Item(Id)
{
    /// <summary>It is printed on the piece's back.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool OnBack { get; init; }

    public override Item Under(Affine map) => this;
    public override ImmutableArray<Line> LinesOn(Piece piece) => [];
    public override bool MarksFace => true;
}
