using System.Globalization;
using System.Text;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Lab;

internal static class ThinVerb
{
    public static object Run(Arguments arguments)
    {
        arguments.Allow("--min", "--svg");
        if (!double.TryParse(arguments.Option("--min"), NumberStyles.Float, CultureInfo.InvariantCulture, out var least) || !(least is > 0 and <= 50))
            throw new LabRefused("the verb thin needs --min with a width in mm above 0, at most 50");
        var (bytes, _) = arguments.File();
        var drawing = ArtFile.Read(bytes);
        var design = ArtFile.Assemble(drawing, []);
        var ((places, narrowest), milliseconds) = Timed.Run(() => Survey(design, least));
        if (arguments.Option("--svg") is { } target) Arguments.WriteText(target, Picture(drawing, design, places.Select(p => p.Place), least));
        return new
        {
            Narrowest = narrowest is { } width ? Math.Round(width, 4) : (double?)null,
            Places = places.Select(p => new
            {
                X = Math.Round(p.Place.At.X, 4), Y = Math.Round(p.Place.At.Y, 4), Width = Math.Round(p.Place.WidthMm, 4),
                Kind = p.Place.Kind.ToString().ToLowerInvariant(), Piece = p.Piece.Name,
            }),
            ElapsedMs = milliseconds,
        };
    }

    private static (List<(Piece Piece, ThinPlace Place)> Places, double? Narrowest) Survey(Design design, double least)
    {
        var places = design.Pieces.SelectMany(p => PieceWidths.Below(p, least).Select(place => (p, place))).OrderBy(p => p.place.WidthMm).ToList();
        var narrow = places.Where(p => p.place.Kind is ThinKind.Neck or ThinKind.Strand).Select(p => (double?)p.place.WidthMm).FirstOrDefault();
        return (places, narrow ?? design.Pieces.Select(p => PieceWidths.Narrowest(p, least)).Min());
    }

    /// <summary>The cuts with a ring round each place.</summary>
    private static string Picture(Drawing drawing, Design design, IEnumerable<ThinPlace> places, double least)
    {
        var svg = new StringBuilder();
        svg.Append(CultureInfo.InvariantCulture, $"<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{drawing.Width}mm\" height=\"{drawing.Height}mm\" viewBox=\"0 0 {drawing.Width} {drawing.Height}\">");
        foreach (var piece in design.Pieces)
        {
            var d = string.Concat(piece.Drawn.Where(p => p.Line.Role != LineRole.Inner).Select(p => PathText.Write(p.Path.Map(piece.Place), 4)));
            svg.Append(CultureInfo.InvariantCulture, $"<path d=\"{d}\" fill=\"#D9D1C3\" fill-rule=\"evenodd\" stroke=\"#24313A\" stroke-width=\".05\"/>");
        }
        foreach (var p in places)
        {
            var colour = p.Kind switch { ThinKind.Gap => "#2D6CDF", ThinKind.Hole => "#0E6E66", _ => "#8C2D62" };
            svg.Append(CultureInfo.InvariantCulture, $"<circle cx=\"{p.At.X:0.###}\" cy=\"{p.At.Y:0.###}\" r=\"{least:0.###}\" fill=\"none\" stroke=\"{colour}\" stroke-width=\"{least / 5:0.###}\"/>");
        }
        return svg.Append("</svg>").ToString();
    }
}
