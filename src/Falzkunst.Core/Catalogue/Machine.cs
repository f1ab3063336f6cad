using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Catalogue;

/// <summary>A cutting machine. Made-up models only.</summary>
/// <param name="Key">Short stable name, lower case with hyphens.</param>
/// <param name="Name">Name for people.</param>
/// <param name="MatWidthMm">Width of the mat and of the working area, mm.</param>
/// <param name="MatHeightMm">Length of the mat, mm.</param>
/// <param name="Unreachable">The strips of a sheet that no tool reaches.</param>
/// <param name="Holders">One or two tool holders.</param>
/// <param name="ReadsMarks">It can find printed registration marks.</param>
/// <param name="TopSpeed">Highest speed, mm/s.</param>
/// <param name="Acceleration">Acceleration of the head, mm/s².</param>
/// <param name="LiftSeconds">Time for one lift or one set-down of a tool.</param>
public sealed record Machine(
    string Key,
    string Name,
    double MatWidthMm,
    double MatHeightMm,
    Borders Unreachable,
    ImmutableArray<Holder> Holders,
    bool ReadsMarks,
    double TopSpeed,
    double Acceleration,
    double LiftSeconds)
{
    public bool Takes(Tool tool) => Holders.Any(h => h.Tools.Contains(tool));
}

/// <summary>A place for a tool, with the tools that fit it.</summary>
public sealed record Holder(string Name, ImmutableArray<Tool> Tools);

/// <summary>Strips along the four edges, mm.</summary>
public sealed record Borders(double Top, double Right, double Bottom, double Left)
{
    /// <summary>What a sheet of some size leaves inside them.</summary>
    public Box Within(double width, double height) => new(Left, Top, width - Right, height - Bottom);

    /// <summary>Each side at least <paramref name="least"/>.</summary>
    public Borders AtLeast(double least) =>
        new(Math.Max(Top, least), Math.Max(Right, least), Math.Max(Bottom, least), Math.Max(Left, least));
}
