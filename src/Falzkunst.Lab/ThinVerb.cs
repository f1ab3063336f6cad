using Falzkunst.Core.Designs;
using Falzkunst.Core.Detail;

namespace Falzkunst.Lab;

internal static class ThinVerb
{
    public static object Run(Arguments arguments)
    {
        arguments.Allow("--min", "--svg");
        var least = arguments.Number("--min", 0.01, 50) ?? throw new LabRefused("the verb thin needs --min with a width in mm above 0, at most 50");
        var (bytes, _) = arguments.File();
        var drawing = ArtFile.Read(bytes);
        var design = ArtFile.Assemble(drawing, []);
        var ((places, narrowest), milliseconds) = Timed.Run(() => Survey(design, least));
        if (arguments.Option("--svg") is { } target) Arguments.WriteText(target, Pictures.Places(drawing, design, places.Select(p => p.Place with { At = p.Piece.Place.Apply(p.Place.At) }), least));
        return new
        {
            Narrowest = narrowest is { } width ? Math.Round(width, 4) : (double?)null,
            Places = places.Select(p => Place(p.Piece, p.Place)),
            ElapsedMs = milliseconds,
        };
    }

    /// <summary>A place of a piece as the lab writes it, in the file's millimetres.</summary>
    public static object Place(Piece piece, ThinPlace place)
    {
        var at = piece.Place.Apply(place.At);
        return new
        {
            X = Math.Round(at.X, 4), Y = Math.Round(at.Y, 4), Width = Math.Round(place.WidthMm, 4),
            Kind = place.Kind.ToString().ToLowerInvariant(), Piece = piece.Name,
        };
    }

    private static (List<(Piece Piece, ThinPlace Place)> Places, double? Narrowest) Survey(Design design, double least)
    {
        var places = design.Pieces.SelectMany(p => PieceWidths.Below(p, least).Select(place => (Piece: p, Place: place))).OrderBy(p => p.Place.WidthMm).ToList();
        var narrow = places.Where(p => p.Place.Kind is ThinKind.Neck or ThinKind.Strand).Select(p => (double?)p.Place.WidthMm).FirstOrDefault();
        return (places, narrow ?? design.Pieces.Select(p => PieceWidths.Narrowest(p, least)).Min());
    }
}
