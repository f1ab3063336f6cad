using Falzkunst.Core.Designs;
using Falzkunst.Core.Detail;

namespace Falzkunst.Lab;

internal static class ThinVerb
{
    public static object Run(Arguments arguments)
    {
        var least = arguments.Number("--min", 0.01, 50) ?? throw new LabRefused("the verb thin needs --min with a width in mm above 0, at most 50");
        var (bytes, _) = arguments.File();
        var drawing = ArtFile.Read(bytes);
        var design = ArtFile.Assemble(drawing, []);
        var ((places, narrowest, unmeasured, coarse), milliseconds) = Timed.Run(() => Survey(design, least));
        if (arguments.Option("--svg") is { } target) Arguments.WriteText(target, Pictures.Places(drawing, design, places.Select(p => p.Place with { At = p.Piece.Place.Apply(p.Place.At) }), least));
        return new
        {
            Narrowest = narrowest is { } width ? Math.Round(width, 4) : (double?)null,
            Places = places.Select(p => Place(p.Piece, p.Place)),
            Coarse = coarse.Count == 0 ? null : coarse,
            Unmeasured = unmeasured.Count == 0 ? null : unmeasured,
            ElapsedMs = milliseconds,
        };
    }

    /// <summary>A place of a piece as the lab writes it, in the file's millimetres.</summary>
    public static object Place(Piece piece, ThinPlace place)
    {
        var at = piece.Place.Apply(place.At);
        return new
        {
            X = Math.Round(at.X, 4),
            Y = Math.Round(at.Y, 4),
            Width = Math.Round(place.WidthMm, 4),
            Kind = place.Kind.ToString().ToLowerInvariant(),
            Piece = piece.Name,
        };
    }

    /// <summary>The places of all pieces, the narrowest width, the pieces too intricate to be measured, and those measured more coarsely than asked.</summary>
    private static (List<(Piece Piece, ThinPlace Place)> Places, double? Narrowest, List<string> Unmeasured, List<object> Coarse) Survey(Design design, double least)
    {
        var places = new List<(Piece Piece, ThinPlace Place)>();
        var (unmeasured, coarse, measured) = (new List<string>(), new List<object>(), new List<Piece>());
        foreach (var piece in design.Pieces)
        {
            var survey = PieceWidths.Survey(piece, least, ArtFile.Reading);
            if (!survey.IsComplete) unmeasured.Add(piece.Name);
            else measured.Add(piece);
            if (survey.IsCoarse) coarse.Add(new { Piece = piece.Name, Step = Math.Round(survey.StepMm, 3) });
            places.AddRange(survey.Courses.Select(c => (piece, c.Place)));
        }
        places = [.. places.OrderBy(p => p.Place.WidthMm)];
        var narrow = places.Where(p => p.Place.Kind is ThinKind.Neck or ThinKind.Strand).Select(p => (double?)p.Place.WidthMm).FirstOrDefault();
        return (places, narrow ?? measured.Select(p => PieceWidths.Narrowest(p, least, ArtFile.Reading)).Min(), unmeasured, coarse);
    }
}
