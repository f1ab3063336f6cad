using Falzkunst.Core.Designs;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Lab;

internal static class ThickenVerb
{
    /// <summary>The gap kept where none is given, mm.</summary>
    private const double UsualGap = 0.3;

    public static object Run(Arguments arguments)
    {
        var least = arguments.Number("--min", Thicken.LeastMm, Thicken.MostMm) ?? throw new LabRefused("the verb thicken needs --min with a width in mm above 0");
        var gap = arguments.Number("--gap", 0, Thicken.MostMm) ?? UsualGap;
        var even = arguments.Number("--even", Thicken.LeastMm, Thicken.MostMm);
        var how = new Thicken(even is not null, even ?? least, gap);
        var (bytes, _) = arguments.File();
        var drawing = ArtFile.Read(bytes);
        var design = ArtFile.Assemble(drawing, []);
        var (grown, milliseconds) = Timed.Run(() => design.Pieces.Select(p => Grow(p, how, design)).ToList());
        if (arguments.Option("--svg") is { } target) Arguments.WriteText(target, Pictures.Pieces(drawing, design.Pieces.Zip(grown, (before, g) => (before, g.Piece))));
        return new
        {
            NarrowestBefore = Rounded(design.Pieces.Select(p => PieceWidths.Narrowest(p, least, ArtFile.Reading)).Min()),
            NarrowestAfter = Rounded(grown.Select(g => PieceWidths.Narrowest(g.Piece, least, ArtFile.Reading)).Min()),
            // Bays that closed, and pieces that grew into each other.
            Merged = grown.Sum(g => g.Merged) + Neighbours.Melted(design.Pieces, [.. grown.Select(g => g.Piece)]),
            ClosedHoles = grown.Sum(g => g.ClosedOpenings),
            AreaBefore = Math.Round(grown.Sum(g => g.AreaBefore), 3),
            AreaAfter = Math.Round(grown.Sum(g => g.AreaAfter), 3),
            Limited = grown.SelectMany(g => g.Limited.Select(l => ThinVerb.Place(g.Piece, l))),
            ElapsedMs = milliseconds,
        };
    }

    private static Thickened Grow(Piece piece, Thicken how, Design design)
    {
        try
        {
            return Thickening.Grow(piece, how, how.MayMelt ? null : Neighbours.Rings(piece, design, how.ReachMm), ArtFile.Reading);
        }
        catch (EditRefused refused)
        {
            // One piece that cannot be done keeps no other from being done.
            Console.Error.WriteLine($"lab: left as it is: {refused.Message}");
            return Thickening.Unchanged(piece);
        }
    }

    private static double? Rounded(double? width) => width is { } w ? Math.Round(w, 4) : null;
}
