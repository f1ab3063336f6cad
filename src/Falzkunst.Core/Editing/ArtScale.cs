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
    /// The project with everything that came of the file at its other size, from the upper left corner of it all. Loose lines do not
    /// know their file: those in the box of its pieces are taken for its own.
    /// </summary>
    /// <exception cref="EditRefused">Nobody takes a scale like that.</exception>
    public static Project Apply(Project project, ScaleArt edit)
    {
        if (!(edit.To is > Least and < Most) || !(edit.From is > Least and < Most)) throw EditRefused.Range(Measure.ArtScale, Least, Most, "scale");
        var design = project.Design;
        var own = design.Pieces.Where(p => p.Art == edit.Art).ToList();
        var box = own.Aggregate(Box.Empty, (all, p) => all.Include(p.Outline.Path.BoundsUnder(p.Place)));
        var setOut = project.SetOut with { ArtScales = project.SetOut.ArtScales.SetItem(edit.Art, edit.To) };
        if (own.Count == 0) return project with { SetOut = setOut };
        var factor = edit.To / edit.From;
        var map = Affine.Scale(factor, factor).About(box.Min);
        return project with
        {
            SetOut = setOut,
            Design = design with
            {
                Pieces = [.. design.Pieces.Select(p => p.Art == edit.Art ? Resized(p, map, factor) : p)],
                Loose = [.. design.Loose.Select(l => !l.Look.IsDrawnHere && box.Contains(l.Path.Bounds, 0.01) ? l with { Path = l.Path.Map(map) } : l)],
            },
        };
    }

    /// <summary>A piece at the other size: its own lines grow, those of a locked size excepted, and its place goes with its corner.</summary>
    private static Piece Resized(Piece piece, Affine map, double factor)
    {
        var corner = piece.Place.Apply(default);
        return piece.Under(Affine.Scale(factor, factor)) with { Place = piece.Place.Then(Affine.Move(map.Apply(corner) - corner)) };
    }
}
