using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Checking;

namespace Falzkunst.Lab;

internal static class PiecesVerb
{
    public static object Run(Arguments arguments)
    {
        var (bytes, _) = arguments.File();
        var rules = ArtFile.Rules(arguments.Option("--rules"));
        var drawing = ArtFile.Read(bytes);
        var (design, milliseconds) = Timed.Run(() => ArtFile.Assemble(drawing, rules));
        return new
        {
            Pieces = design.Pieces.Select(p => new
            {
                p.Name,
                Area = Round(p.Area),
                Width = Round(p.Size.Width),
                Height = Round(p.Size.Height),
                Holes = p.Paper.Openings.Length,
                Operations = p.Lines.GroupBy(l => l.Operation).OrderBy(g => g.Key).ToDictionary(g => g.Key.Word(), g => g.Count()),
            }),
            Orphans = design.Loose.Select(l => new
            {
                Operation = l.Operation.Word(),
                l.Name,
                Length = Round(l.Path.Length),
                X = Round(l.Path.Bounds.Centre.X),
                Y = Round(l.Path.Bounds.Centre.Y),
            }),
            Findings = Checks.Findings(design).Select(f => new { f.Code, f.Name, f.Other, Operation = f.Operation?.Word(), f.LengthsMm, f.Place, X = f.At?.X, Y = f.At?.Y }),
            ElapsedMs = milliseconds,
        };
    }

    private static double Round(double value) => Math.Round(value, 4);
}
