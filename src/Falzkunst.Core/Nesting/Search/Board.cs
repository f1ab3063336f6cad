using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting.Search;

/// <summary>One sheet made ready for nesting.</summary>
internal sealed class Board
{
    /// <summary>Obstacles are larger by this, mm, so that what single precision finds free is so in truth.</summary>
    private const double Clearance = 0.002;

    /// <summary>How far what lies beyond an offcut's outline reaches past its box, in parts of its size.</summary>
    private const double Beyond = 0.4;

    /// <summary>Curves are flattened within this, mm.</summary>
    private const double Flat = 0.005;

    private const int QuarterEdges = 12;

    private Board(NestSheet sheet, int number, Box usable, CollisionShape[] obstacles, double room, Board? alike)
    {
        (Sheet, Number, Usable, Obstacles, Room) = (sheet, number, usable, obstacles, room);
        Kind = alike?.Kind ?? this;
    }

    public NestSheet Sheet { get; }

    /// <summary>1 for the first sheet of its kind.</summary>
    public int Number { get; }

    /// <summary>The box that pieces stay in.</summary>
    public Box Usable { get; }

    /// <summary>What they do not touch, in the sheet's coordinates.</summary>
    public CollisionShape[] Obstacles { get; }

    /// <summary>Area that pieces can lie on, mm².</summary>
    public double Room { get; }

    /// <summary>The first board of its kind; equal kinds are the same object.</summary>
    public Board Kind { get; }

    /// <summary>All sheets of a kind.</summary>
    /// <param name="sheet">The kind.</param>
    /// <param name="most">No more than so many are made.</param>
    public static List<Board> All(NestSheet sheet, int most)
    {
        var boards = new List<Board>();
        var count = Math.Min(sheet.Count, most);
        if (count <= 0 || sheet.Usable.IsEmpty) return boards;
        var (usable, forbidden) = Split(sheet);
        if (usable.IsEmpty) return boards;
        var obstacles = new List<CollisionShape>();
        foreach (var (outer, openings) in forbidden.Parts)
        {
            List<Point[]> rings = [outer, .. openings];
            obstacles.Add(new CollisionShape(rings, Poles.Find(rings), Math.Abs(Polygons.SignedArea(outer))));
        }
        var box = Box.Around(usable.Rings.SelectMany(r => r));
        for (var i = 1; i <= count; i++) boards.Add(new Board(sheet, i, box, [.. obstacles], usable.Area, boards.FirstOrDefault()));
        return boards;
    }

    /// <summary>What can be used of a sheet, and what must not be touched within or around it.</summary>
    private static (Region Usable, Region Forbidden) Split(NestSheet sheet)
    {
        var box = Rectangle(sheet.Usable);
        var forbidden = Region.Empty;
        if (sheet.Outline is { } outline)
        {
            var paper = Region.FromRings(Flattening.Flatten(outline, Flat), []);
            if (sheet.OutlineBorderMm > 0) paper = paper.Grow(-sheet.OutlineBorderMm, Corners.Tangent, QuarterEdges);
            var around = Rectangle(sheet.Usable.Grow(Beyond * Math.Max(sheet.Width, sheet.Height)));
            forbidden = around.Minus(paper);
        }
        foreach (var zone in sheet.Blocked) forbidden = forbidden.Union(Region.FromRings(Flattening.Flatten(zone, Flat), []));
        if (forbidden.IsEmpty) return (box, forbidden);
        return (box.Minus(forbidden), forbidden.Grow(Clearance + (IsCurved(sheet) ? Flat : 0), Corners.Sharp, 1));
    }

    private static bool IsCurved(NestSheet sheet) => sheet.Blocked.Concat(sheet.Outline is { } o ? [o] : []).Any(p => p.Segments.Any(s => s.IsCubic));

    private static Region Rectangle(Box b) => Region.FromRings([new(b.MinX, b.MinY), new(b.MaxX, b.MinY), new(b.MaxX, b.MaxY), new(b.MinX, b.MaxY)], []);
}
