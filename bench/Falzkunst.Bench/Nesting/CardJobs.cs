using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting;
using static Falzkunst.Bench.Nesting.CardShapes;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Bench.Nesting;

/// <summary>Twelve jobs of card pieces.</summary>
public static class CardJobs
{
    private const double Spacing = 2;

    public static IEnumerable<(string Name, NestJob Job)> All()
    {
        yield return ("frames and tags", Job(Square, [Frame("frame", 140, 105, 12, 6), Ring("ring", 45, 7, 6), Tag("tag", 32, 60, 24), Star("star", 16, 5, 12)]));
        yield return ("gate-folds", Job(Square, [Gate("wing", 70, 148, 8, 8), Rectangle("back", 148, 105, 3), Hills("hills", 140, 60, 6), Star("star", 14, 6, 12)]));
        yield return ("scallops", Job(Square, [Scallop("large", 34, 16, 12), Scallop("middle", 24, 12, 16), Scallop("small", 13, 10, 30)]));
        yield return ("leaves", Job(Square, [Leaf("long", 95, 34, 18), Leaf("middle", 62, 30, 26), Leaf("small", 38, 16, 40)]));
        yield return ("letters", Job(Square, [.. "LTEHVNFK".Select(c => Letter(c, 56, 6)), O(56, 6), O(30, 8), .. "LTEV".Select(c => Letter(c, 26, 8))]));
        yield return ("marks on A4", Job(Marked, [Tram("tram", 96, 8), Tag("tag", 34, 62, 12), Scallop("badge", 22, 12, 10), Leaf("leaf", 70, 26, 12), Ring("ring", 30, 5, 6)]));
        yield return ("grain", Job(Square, [.. new[] { Gate("wing", 62, 140, 7, 6), Tram("tram", 110, 8), Hills("hills", 120, 48, 8), Tag("tag", 30, 58, 16), Lantern("lantern", 44, 20) }.Select(p => p with { Turns = Turns.Half })]));
        yield return ("offcuts", Job(Offcuts, [Tram("tram", 96, 8), Leaf("leaf", 80, 30, 16), Star("star", 24, 5, 18), Frame("frame", 92, 72, 9, 6), Lantern("lantern", 40, 16)]));
        yield return ("viaducts", Job(Square, [Viaduct("viaduct", 180, 58, 5, 6), Tram("tram", 84, 10), Lantern("lantern", 42, 24), Star("star", 11, 5, 30), Hills("hills", 150, 52, 4)]));
        yield return ("free turns", Job(Square, [.. new[] { Leaf("long", 105, 36, 16), Hills("hills", 130, 50, 6), Star("star", 26, 5, 14), Lantern("lantern", 56, 18), Scallop("badge", 20, 12, 10) }.Select(p => p with { Turns = Turns.Free })]));
        yield return ("mirrored", Job(Square, [.. new[] { Letter('L', 90, 10), Letter('F', 80, 10), Gate("wing", 60, 120, 9, 6), Hills("hills", 120, 55, 6), Leaf("leaf", 60, 24, 16) }.Select(p => p with { MayMirror = true })]));
        yield return ("a whole evening", Job(Square, [Frame("frame", 130, 130, 10, 5), Viaduct("viaduct", 150, 50, 5, 5), Tram("tram", 80, 10), Gate("wing", 55, 120, 6, 8), Tag("tag", 28, 54, 20), .. "LTEHVN".Select(c => Letter(c, 34, 5)), Leaf("leaf", 58, 22, 20), Star("star", 12, 5, 30), Scallop("badge", 18, 12, 15), Ring("ring", 26, 5, 10)]));
    }

    /// <summary>Many copies of everything.</summary>
    public static NestJob Many(int copies) => Job(Square,
        [Tram("tram", 60, copies / 5), Leaf("leaf", 48, 18, copies / 5), Star("star", 14, 5, copies / 5), Tag("tag", 24, 44, copies / 5), Ring("ring", 20, 4, copies - 4 * (copies / 5))]);

    private static NestJob Job(NestSheet[] sheets, NestPiece[] pieces) => new([.. sheets], [.. pieces], Spacing);

    private static NestSheet[] Square => [new("square", 304.8, 304.8, new Borders(5, 5, 5, 5), 40)];

    private static NestSheet[] Marked =>
    [
        new("A4", 210, 297, new Borders(6, 6, 6, 6), 20)
        {
            Blocked = [Path.Rectangle(0, 0, 26, 26), Path.Rectangle(184, 0, 26, 26), Path.Rectangle(0, 271, 26, 26)],
        },
    ];

    private static NestSheet[] Offcuts =>
    [
        new("offcut one", 200, 240, new Borders(4, 4, 4, 4), 1)
        {
            IsOffcut = true, OutlineBorderMm = 4,
            Outline = Path.Polyline([new(0, 0), new(200, 0), new(200, 120), new(140, 135), new(90, 240), new(0, 240)], true),
        },
        new("offcut two", 280, 110, new Borders(4, 4, 4, 4), 1)
        {
            IsOffcut = true, OutlineBorderMm = 4,
            Outline = Path.Polyline([new(0, 30), new(60, 0), new(280, 0), new(280, 80), new(150, 110), new(0, 110)], true),
        },
        .. Square,
    ];
}
