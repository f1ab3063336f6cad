using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Serialization;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Printing.Registration;

namespace Falzkunst.Lab;

/// <summary>Registration marks on a scan or photo.</summary>
internal static class MarksVerb
{
    private const double InchMm = 25.4, MostMm = 5000;

    /// <summary>Numbers of maps are written to so many places that a corner of a large page is right to a ten-thousandth of a dot.</summary>
    private const int Decimals = 10;

    private static readonly Dictionary<string, PictureTaker> Takers = new() { ["either"] = PictureTaker.Either, ["scanner"] = PictureTaker.Scanner, ["camera"] = PictureTaker.Camera };

    public static object Run(Arguments arguments)
    {
        var layout = Layout(arguments.Option("--layout") ?? throw new LabRefused("the verb marks needs --layout, a file that says where the marks are"));
        var named = arguments.Option("--taken-by") ?? "either";
        if (!Takers.TryGetValue(named, out var taker)) throw new LabRefused($"--taken-by takes {string.Join(", ", Takers.Keys)}, not “{named}”");
        var asked = arguments.Number("--dpi", MarkFinder.LeastDotsPerInch, MarkFinder.MostDotsPerInch);
        var (bytes, path) = arguments.File();
        var picture = TraceVerb.Read(bytes, path);
        var stated = (asked ?? picture.DotsPerInch) / InchMm;
        // Code is made ready first, so that the computation alone is measured.
        MarkFinder.Find(WarmUp(layout), layout, null, taker);
        var (reading, milliseconds) = Timed.Run(() => MarkFinder.Find(InkRaster.OfDarkness(picture.Image), layout, stated, taker));
        var found = reading.Found.Select(Name).ToList();
        if (reading.Page is not { } page)
            return new { Found = found, Refused = new { Mark = reading.Refused!.Mark is { } mark ? Name(mark) : null, Reason = Name(reading.Refused.Why) }, Message = Message(reading.Refused), ElapsedMs = milliseconds };
        // A photo has no resolution of its own: what its dots are at the sheet's middle stands for it.
        var dots = page.IsPhoto ? page.DotsPerMm : stated ?? page.DotsPerMm;
        var result = new Dictionary<string, object>
        {
            ["found"] = found,
            ["transform"] = Numbers(Nearest(page, layout).Then(Affine.Scale(1 / dots, 1 / dots)) is var m ? [m.A, m.B, m.C, m.D, m.E, m.F] : []),
            ["residual"] = Math.Round(page.ResidualMm, 4),
            ["uncertain"] = Math.Round(page.UncertainMm + (page.Photo?.OffMm ?? 0), 4),
            ["spread"] = Math.Round(page.SpreadMm, 4),
            ["dpi"] = Math.Round(dots * InchMm, 3),
        };
        if (page.Photo is { Map: var p }) result["projection"] = Numbers([p.A / p.I, p.B / p.I, p.C / p.I, p.D / p.I, p.E / p.I, p.F / p.I, p.G / p.I, p.H / p.I, 1]);
        result["elapsed_ms"] = milliseconds;
        return result;
    }

    private static double[] Numbers(double[] numbers) => [.. numbers.Select(n => Math.Round(n, Decimals))];

    /// <summary>The affine map to dots that comes nearest at the sheet's corners, which for a scan is the map itself.</summary>
    private static Affine Nearest(ReadPage page, MarkLayout layout)
    {
        var (w, h) = (layout.Width, layout.Height);
        var (a, b, c, d) = (page.Map.Apply(new(0, 0)), page.Map.Apply(new(w, 0)), page.Map.Apply(new(w, h)), page.Map.Apply(new(0, h)));
        var (x, y) = ((b - a + (c - d)) * (0.5 / w), (d - a + (c - b)) * (0.5 / h));
        var at = (a + b + c + d) * 0.25 - x * (w / 2) - y * (h / 2);
        return new Affine(x.X, x.Y, y.X, y.Y, at.X, at.Y);
    }

    private static string Name(MarkCorner corner) => JsonNamingPolicy.KebabCaseLower.ConvertName(corner.ToString());
    private static string Name(MarkTrouble why) => JsonNamingPolicy.KebabCaseLower.ConvertName(why.ToString());

    private static string Message(MarkRefusal refused)
    {
        var mark = refused.Mark is { } corner ? $"the mark at {Name(corner)}" : "the marks";
        return refused.Why switch
        {
            MarkTrouble.Missing => $"{mark} cannot be found",
            MarkTrouble.Covered => $"a part of {mark} is covered or was not printed",
            MarkTrouble.Mirrored => $"{mark} faces the wrong way: the page is mirrored or another one",
            MarkTrouble.Decoy => $"another shape of the same form stands by {mark}",
            MarkTrouble.OtherLayout => $"{mark}: what is seen is not as the layout has it",
            _ => $"{mark} does not agree with the others: the page is creased or was moved unevenly",
        };
    }

    private static InkRaster WarmUp(MarkLayout layout) => PageScan.Take(layout, [], new ScanFaults(300, 300, Projection.From(Affine.Scale(300 / Math.Max(layout.Width, layout.Height), 300 / Math.Max(layout.Width, layout.Height))), 1));

    private sealed record LayoutFile(double Width, double Height, List<MarkInFile>? Marks);

    private sealed record MarkInFile(double X, double Y, double Arm, double Line, MarkCorner Corner);

    private static readonly JsonSerializerOptions LayoutOptions = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower, allowIntegerValues: false) },
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        RespectRequiredConstructorParameters = true,
    };

    private static MarkLayout Layout(string path)
    {
        LayoutFile file;
        try
        {
            file = JsonSerializer.Deserialize<LayoutFile>(Arguments.ReadBytes(path), LayoutOptions) ?? throw new LabRefused($"the layout in {path} is empty");
        }
        catch (JsonException e)
        {
            throw new LabRefused($"the layout in {path} is not understood at {e.Path ?? "the beginning"} (line {e.LineNumber + 1})");
        }
        var marks = file.Marks ?? [];
        if (!(file.Width is > 0 and <= MostMm && file.Height is > 0 and <= MostMm)) throw new LabRefused($"the layout in {path}: width and height are needed, mm");
        if (marks.Count < MarkLayout.LeastMarks || marks.DistinctBy(m => m.Corner).Count() < marks.Count) throw new LabRefused($"the layout in {path}: marks at three corners or four are needed, one to a corner");
        foreach (var (mark, i) in marks.Select((m, i) => (m, i)))
        {
            if (!(mark.Arm > 2 * mark.Line && mark.Line > 0 && mark.Arm < Math.Min(file.Width, file.Height) / 2)) throw new LabRefused($"the layout in {path}: marks[{i}]: arm and line are lengths in mm, the arm longer than twice the line and shorter than half the sheet");
            if (!Box.FromSize(file.Width, file.Height).Contains(new Point(mark.X, mark.Y))) throw new LabRefused($"the layout in {path}: marks[{i}]: x and y are not on the sheet");
        }
        return new MarkLayout(file.Width, file.Height, [.. marks.Select(m => new LayoutMark(m.Corner, new Point(m.X, m.Y), m.Arm, m.Line))]);
    }
}
