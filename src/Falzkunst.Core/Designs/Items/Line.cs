using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>What a line is to its piece. It follows from the line and from what is done along it, and is never kept.</summary>
public enum LineRole
{
    /// <summary>It bounds the piece.</summary>
    Outline,

    /// <summary>A closed line inside that is cut through: the paper in it falls out.</summary>
    Opening,

    /// <summary>Any other.</summary>
    Inner,
}

/// <summary>One path that one tool runs over.</summary>
/// <param name="Id">Unique on its piece, and never used there again; of a line on no piece unique among those.</param>
/// <param name="Path">Where it runs, in its piece's coordinates; of a line on no piece in the card's.</param>
/// <param name="Operation">What a tool does along it.</param>
/// <param name="Look">How it looked in its file.</param>
/// <param name="Name">Its name in the file, if it had one.</param>
/// <param name="Ink">Colour of pen or foil as #rrggbb; null for other operations.</param>
public sealed record Line(string Id, Path Path, Operation Operation, Look Look, string? Name, string? Ink) : WorkedItem(Id, Operation, Ink)
{
    /// <summary>It keeps its size when its piece is scaled: an opening that must grip something.</summary>
    public bool SizeLocked { get; init; }

    /// <summary>Key of the file that it came from, on whatever piece it is now; null for lines drawn here and those of former times.</summary>
    public Guid? Art { get; init; }

    /// <summary>How its file painted it, widths as large as they are on the piece; null for lines drawn here and those of former times.</summary>
    public PrintLook? Painted { get; init; }

    /// <summary>Number of the shape of its file that it is a line of: what a shape fills is filled by all its lines together.</summary>
    public int? Shape { get; init; }

    [JsonIgnore]
    public override Look SeenAs => Look;

    [JsonIgnore]
    public override bool StandsFree => true;

    /// <summary>A line whose size is locked goes where the map takes its middle, turned and mirrored but not scaled.</summary>
    public override Line Under(Affine map)
    {
        var way = SizeLocked ? map.KeepingSizeAt(Path.Bounds.Centre) : map;
        return this with { Path = Path.Map(way), Painted = Painted?.Under(way, SizeLocked ? 1 : map.MeanScale) };
    }

    public override ImmutableArray<Line> LinesOn(Piece piece) => [this];
}
