using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Editing;

/// <summary>The size at which an art file without one was taken, changed afterwards.</summary>
internal static class ArtScale
{
    /// <summary>No file is scaled by less or more than this.</summary>
    private const double Least = 1e-5;
    private const double Most = 1e5;

    /// <summary>
    /// The project with everything that came of the file at its other size, from the upper left corner of it all: its pieces, its lines
    /// on other pieces, its loose lines. Lines of former times do not know their file: on its pieces, and loose among them, they are
    /// taken for its own.
    /// </summary>
    /// <exception cref="EditRefused">Nobody takes a scale like that.</exception>
    public static Project Apply(Project project, ScaleArt edit)
    {
        if (!(edit.To is > Least and < Most) || !(edit.From is > Least and < Most)) throw EditRefused.Range(Measure.ArtScale, Least, Most, "scale");
        var design = project.Design;
        var pieces = design.Pieces.Where(p => IsOf(p, edit.Art)).Aggregate(Box.Empty, (all, p) => all.Include(p.Outline.Path.BoundsUnder(p.Place)));
        bool IsOwn(Line l) => l.Art == edit.Art || (l is { Art: null, Look.IsDrawnHere: false } && pieces.Contains(l.Path.Bounds, 0.01));
        var box = design.Pieces.Where(p => !IsOf(p, edit.Art)).SelectMany(p => p.Lines.Where(l => l.Art == edit.Art).Select(l => l.Path.BoundsUnder(p.Place)))
            .Concat(design.Loose.Where(IsOwn).Select(l => l.Path.Bounds)).Aggregate(pieces, (all, b) => all.Include(b));
        var factor = edit.To / edit.From;
        var map = Affine.Scale(factor, factor).About(box.IsEmpty ? default : box.Min);
        return project with
        {
            SetOut = project.SetOut with { ArtScales = project.SetOut.ArtScales.SetItem(edit.Art, edit.To) },
            Design = design with
            {
                Pieces = [.. design.Pieces.Select(p => IsOf(p, edit.Art) ? Resized(p, edit.Art, map, factor) : WithLines(p, edit.Art, map))],
                Loose = [.. design.Loose.Select(l => IsOwn(l) ? l.Under(map) : l).Cast<Line>()],
            },
        };
    }

    private static bool IsOf(Piece piece, Guid art) => (piece.Outline.Art ?? piece.Art) == art;

    /// <summary>
    /// A piece at the other size: its lines grow, those of a locked size or of another file only go along, and its place goes with its
    /// corner.
    /// </summary>
    private static Piece Resized(Piece piece, Guid art, Affine map, double factor)
    {
        var corner = piece.Place.Apply(default);
        var grow = Affine.Scale(factor, factor);
        var strange = piece.Lines.Where(l => l.Art is { } other && other != art).ToDictionary(l => l.Id, l => l.Path.Map(grow.KeepingSizeAt(l.Path.Bounds.Centre)));
        var grown = piece.Under(grow).EachLine([.. strange.Keys], l => l with { Path = strange[l.Id] });
        return grown with { Place = piece.Place.Then(Affine.Move(map.Apply(corner) - corner)) };
    }

    /// <summary>A piece of another make with the file's lines on it at their other size.</summary>
    private static Piece WithLines(Piece piece, Guid art, Affine map)
    {
        var own = piece.Lines.Where(l => l.Art == art).Select(l => l.Id).ToHashSet();
        var there = piece.Place.Then(map).Then(piece.Place.Inverse());
        return own.Count == 0 ? piece : piece.EachLine(own, l => (Line)l.Under(there));
    }
}
