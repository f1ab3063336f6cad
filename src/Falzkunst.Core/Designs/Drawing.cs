using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>What was in an art file, at true size, in the order it is painted, with all that was not understood.</summary>
/// <param name="Width">Width of the page, mm.</param>
/// <param name="Height">Height of the page, mm.</param>
/// <param name="Shapes">Every painted shape, lowest first.</param>
/// <param name="Images">Number of embedded pictures.</param>
/// <param name="Notes">What was not understood or not kept, by place.</param>
public sealed record Drawing(
    double Width,
    double Height,
    ImmutableArray<DrawnShape> Shapes,
    int Images,
    ImmutableArray<ReadingNote> Notes)
{
    /// <summary>The embedded pictures, lowest first.</summary>
    public ImmutableArray<DrawnPicture> Pictures { get; init; } = [];

    /// <summary>
    /// Where the file says no physical size: how many of its units were taken for an inch. Null where it says one, so that this is
    /// the true size.
    /// </summary>
    public double? UnitsToInch { get; init; }

    /// <summary>The tight box around all lines, mm.</summary>
    public Box Extent => Shapes.SelectMany(s => s.Paths).Aggregate(Box.Empty, (all, p) => all.Include(p.Bounds));

    /// <summary>The same drawing at another size, from the page's upper left corner.</summary>
    /// <param name="by">The factor, above 0.</param>
    public Drawing Scaled(double by)
    {
        if (by == 1) return this;
        var map = Affine.Scale(by, by);
        return this with
        {
            Width = Width * by,
            Height = Height * by,
            Shapes = [.. Shapes.Select(s => s with { Paths = [.. s.Paths.Select(p => p.Map(map))], Appearance = s.Appearance.Scaled(by) })],
            Pictures = [.. Pictures.Select(p => p with { Place = p.Place.Then(map) })],
        };
    }

    public int LineCount => Shapes.Sum(s => s.Paths.Length);
    public int SegmentCount => Shapes.Sum(s => s.Paths.Sum(p => p.Segments.Length));
}

/// <summary>One shape of a file: one or more lines painted alike.</summary>
/// <param name="Paths">Its lines, mm on the page.</param>
/// <param name="Appearance">How it was painted.</param>
/// <param name="Name">Its own name in the file, if it had one.</param>
/// <param name="Groups">The names of the groups it lies in, outermost first; groups without a name are left out.</param>
/// <param name="Declared">The operation that the file itself gives it, if any.</param>
/// <param name="Place">Where it stands in the file, for people.</param>
public sealed record DrawnShape(
    ImmutableArray<Path> Paths,
    Appearance Appearance,
    string? Name,
    ImmutableArray<string> Groups,
    Operation? Declared,
    string Place)
{
    /// <summary>Numbers of all groups that it lies in, those without a name included, outermost first; each group has its own.</summary>
    public ImmutableArray<int> Within { get; init; } = [];
}

/// <summary>A picture embedded in a file, as it came.</summary>
/// <param name="Content">Its bytes.</param>
/// <param name="MediaType">What the file says it is, such as "image/png".</param>
/// <param name="Place">From the picture's box to mm on the page.</param>
/// <param name="Width">Width of its box, before the place.</param>
/// <param name="Height">Height of its box.</param>
/// <param name="Above">How many of the drawing's shapes lie below it.</param>
/// <param name="Name">Its own name in the file, if it had one.</param>
/// <param name="Groups">The names of the groups it lies in, outermost first.</param>
/// <param name="From">Where it stands in the file, for people.</param>
public sealed record DrawnPicture(
    byte[] Content, string MediaType, Affine Place, double Width, double Height, int Above, string? Name, ImmutableArray<string> Groups, string From);

/// <summary>Something in a file that was not understood, or was read in part.</summary>
/// <param name="Code">Stable short code, lower case with hyphens.</param>
/// <param name="Message">A sentence for people.</param>
/// <param name="Where">The place in the file.</param>
/// <param name="Piece">Id of the piece that came of what stands there; null where none did, or before there are pieces.</param>
public sealed record ReadingNote(string Code, string Message, string Where, string? Piece = null);
