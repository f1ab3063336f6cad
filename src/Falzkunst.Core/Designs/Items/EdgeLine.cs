using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using System.Text.Json.Serialization;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>
/// A line along the edge of the piece at a distance inside it, such as a drawn border or a row of perforations. It remembers the
/// distance and follows the outline: scaling the piece moves it, but leaves the distance as it is.
/// </summary>
/// <param name="Id">Id of the item.</param>
/// <param name="InsetMm">Distance from the edge, mm.</param>
/// <param name="Corners">What becomes of corners.</param>
/// <param name="Operation">What a tool does along it.</param>
/// <param name="Ink">Colour of pen or foil as #rrggbb; null for other operations.</param>
public sealed record EdgeLine(string Id, double InsetMm, Corners Corners, Operation Operation, string? Ink) : WorkedItem(Id, Operation, Ink)
{
    /// <summary>Limits of the distance, mm.</summary>
    public const double LeastMm = 0.2;
    public const double MostMm = 100;

    /// <summary>Curves fitted to the line lie this near to the true distance, mm.</summary>
    private const double FitMm = 0.008;

    /// <summary>Length over which a turn is judged to be a corner when curves are fitted, mm.</summary>
    private const double WindowMm = 0.15;

    /// <summary>Rings smaller than this are no line that anybody wants, mm².</summary>
    private const double LeastArea = 0.5;

    /// <summary>The outline is looked at as corners this near to it, mm.</summary>
    private const double Flatness = 0.001;

    /// <summary>Lines by outline: they follow from it and from the distance alone.</summary>
    private static readonly ConditionalWeakTable<Path, Dictionary<(double, Corners), ImmutableArray<Path>>> Known = [];

    [JsonIgnore]
    public override Look SeenAs => Look.DrawnHere;

    /// <summary>It follows the outline wherever that goes.</summary>
    public override Item Under(Affine map) => this;

    public override ImmutableArray<Line> LinesOn(Piece piece)
    {
        return [.. Paths(piece.Outline.Path).Select(path => new Line(Id, path, Operation, SeenAs, "edge line", Ink) { Settings = Settings })];
    }

    private ImmutableArray<Path> Paths(Path outline)
    {
        var known = Known.GetOrCreateValue(outline);
        lock (known)
        {
            if (!known.TryGetValue((InsetMm, Corners), out var paths)) known[(InsetMm, Corners)] = paths = Find(outline);
            return paths;
        }
    }

    private ImmutableArray<Path> Find(Path outline)
    {
        // A quarter turn of n edges strays by r(1 - cos(45°/n)) from a circle of radius r.
        var quarter = Math.Clamp((int)Math.Ceiling(Math.PI / 4 / Math.Acos(1 - Math.Min(1, FitMm / 4 / InsetMm))), 4, 200);
        Region inner;
        try
        {
            inner = Region.FromRings(Flattening.Flatten(outline, Flatness), []).Grow(-InsetMm, Corners, quarter);
        }
        catch (BudgetSpent)
        {
            // An outline that crosses itself so often has no line along its inside.
            return [];
        }
        return [.. inner.Rings.Where(r => Math.Abs(Polygons.SignedArea(r)) >= LeastArea).Select(r => CurveFit.Closed(r, FitMm, WindowMm))];
    }
}
