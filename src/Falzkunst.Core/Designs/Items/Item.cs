using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>
/// Something on a piece besides its outline: a line, or something that lines or print follow from. Each kind says here, in its
/// own record, what becomes of it when its piece is worked on; nothing else in the house asks which kind it is. An item lies in
/// its piece's coordinates, mm. Thickening makes outline and openings anew; all other items stay as they are, and those that follow
/// the outline follow the new one.
/// </summary>
/// <param name="Id">Unique on its piece, and never used there again.</param>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(EdgeLine), "edge-line")]
[JsonDerivedType(typeof(TextItem), "text")]
[JsonDerivedType(typeof(PictureItem), "picture")]
[JsonDerivedType(typeof(PrintedFill), "printed-fill")]
public abstract record Item(string Id)
{
    /// <summary>The piece is moved, scaled or mirrored within its coordinates: the item as it is then. What locks its size keeps it here.</summary>
    public abstract Item Under(Affine map);

    /// <summary>
    /// The lines that follow from it, with the item's id: what findings look at, what tools run, what writers write. Computed from the
    /// piece as it is, so that an item made of something follows that.
    /// </summary>
    public abstract ImmutableArray<Line> LinesOn(Piece piece);

    /// <summary>It leaves a mark on one side, so that the piece must not be nested lying on its face.</summary>
    [JsonIgnore]
    public abstract bool MarksFace { get; }
}

/// <summary>An item that is made of something else than lines and lies in a box of its own under a map.</summary>
/// <param name="Id">Id of the item.</param>
/// <param name="Place">From the box's coordinates, its upper left corner at 0, 0, to the piece's.</param>
/// <param name="Width">Width of the box, mm.</param>
/// <param name="Height">Height of the box, mm.</param>
public abstract record PlacedItem(string Id, Affine Place, double Width, double Height) : Item(Id)
{
    /// <summary>It is turned and mirrored with its piece, but not scaled.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool SizeLocked { get; init; }

    /// <summary>Where it lies on its piece.</summary>
    [JsonIgnore]
    public Box Bounds => Path.Rectangle(0, 0, Width, Height).BoundsUnder(Place);

    public override Item Under(Affine map) => this with { Place = Place.Then(SizeLocked ? map.KeepingSizeAt(Bounds.Centre) : map) };

    public override bool MarksFace => true;
}
