using System.Runtime.CompilerServices;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Printing;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Running;
using Falzkunst.Web.Desk;
using Falzkunst.Web.Wording;

namespace Falzkunst.Web.LightTable;

/// <summary>Scenes of the stations.</summary>
public static class SceneBuilder
{
    /// <summary>Distance between sheets on the table, mm.</summary>
    private const double SheetGapMm = 40;

    /// <summary>How much mat is seen round a sheet, mm.</summary>
    private const double MatEdgeMm = 14;

    /// <summary>A mat is shown no farther than this many times the sheet's size.</summary>
    private const double MostMat = 1.25;

    private static readonly IReadOnlyList<SceneOperation> Operations = [.. OperationWords.LowestFirst.Select(o => new SceneOperation(o.Word(), o.Colour()))];

    /// <summary>The pieces, spread out and as they lie on the card.</summary>
    public static Scene Pieces(OnDesk on)
    {
        var design = on.Value.Design;
        var spread = SpreadOut.Arrange(design);
        var number = 0;
        var findings = on.Findings.Select(f => (Number: ++number, Finding: f)).ToList();
        var card = on.Value.SetOut.Card;
        SceneLayout Layout(string name, Func<int, Affine> placeOf, bool withLoose)
        {
            var items = design.Pieces.Select((p, i) => (p, i)).Where(t => !t.p.Hidden).Select(t => new SceneItem(t.p.Id, 1, ScenePieces.Numbers(placeOf(t.i)))).ToList();
            var box = design.Pieces.Select((p, i) => p.Outline.Path.BoundsUnder(placeOf(i))).Aggregate(Box.Empty, (all, b) => all.Include(b));
            var loose = withLoose ? design.Loose : [];
            box = loose.Aggregate(box, (all, l) => all.Include(l.Path.Bounds));
            var pins = findings.Select(f => Pin(f.Number, f.Finding, on.Value, placeOf, withLoose)).OfType<ScenePin>().ToList();
            // The card's edge is a help while pieces are laid on it, and would be in the way where they are spread out.
            IReadOnlyList<SceneFrame> frames = withLoose && !design.Pieces.IsEmpty ? [new SceneFrame("guide", [0, 0, card.OpenWidth, card.OpenHeight])] : [];
            if (frames.Count > 0) box = box.Include(Box.FromSize(card.OpenWidth, card.OpenHeight));
            return new SceneLayout(name, Corners(box), frames, items,
                [.. loose.Select(l => new SceneLoose(l.Id, l.Operation.Word(), PathText.Write(l.Path, ScenePieces.Decimals), l.Ink))], pins);
        }
        var shown = design.Pieces.Where(p => !p.Hidden).ToList();
        return new Scene(on.Project.Head, Inches(on), Operations, ScenePieces.Shapes(shown), Drawn(on, shown),
            [Layout("spread", i => spread[i], withLoose: false), Layout("stacked", i => design.Pieces[i].Place, withLoose: true)]);
    }

    /// <summary>Some pieces as they lie on the card, with pins and courses of width.</summary>
    public static Scene SomePieces(OnDesk on, string layout, IReadOnlyList<Piece> pieces, IReadOnlyList<ScenePin> pins, IReadOnlyList<SceneWidths> widths, double? least = null)
    {
        var box = pieces.Aggregate(Box.Empty, (all, p) => all.Include(p.Outline.Path.BoundsUnder(p.Place)));
        var items = pieces.Select(p => new SceneItem(p.Id, 1, ScenePieces.Numbers(p.Place))).ToList();
        return new Scene(on.Project.Head, Inches(on), Operations, ScenePieces.Shapes(pieces), Drawn(on, pieces), [new SceneLayout(layout, Corners(box), [], items, [], pins) { Widths = widths, Least = least }]);
    }

    /// <summary>The sheets of one stock, or one sheet, as they lie at the upper left corner of the mat.</summary>
    /// <param name="on">The project.</param>
    /// <param name="sheets">The sheets.</param>
    /// <param name="byHand">Key of the stock whose pieces can be moved by hand; null where nothing can.</param>
    public static Scene Sheets(OnDesk on, IReadOnlyList<SheetLayout> sheets, string? byHand = null)
    {
        var frames = new List<SceneFrame>();
        var items = new List<SceneItem>();
        var box = Box.Empty;
        double left = 0;
        var placed = sheets.SelectMany(s => s.Placements).Select(p => p.Piece).ToHashSet();
        var pieces = on.Value.Made.Pieces.Where(p => placed.Contains(p.Id)).ToList();
        var machine = on.Drawer.Machines.FirstOrDefault(m => m.Key == on.Value.SetOut.Machine);
        foreach (var sheet in sheets)
        {
            var mat = MatOf(sheet, machine).Move(left, 0);
            frames.AddRange(FramesOf(on, sheet, mat, left));
            foreach (var p in sheet.Placements)
            {
                if (!pieces.Exists(q => q.Id == p.Piece)) continue;
                items.Add(new SceneItem(p.Piece, p.Copy, ScenePieces.Numbers(p.Place.Then(Affine.Move(left, 0)))) { Sheet = sheet.Id, Pinned = p.Pinned });
            }
            box = box.Include(mat.Grow(2));
            left = mat.MaxX + SheetGapMm + MatEdgeMm;
        }
        return new Scene(on.Project.Head, Inches(on), Operations, ScenePieces.Shapes(pieces), Drawn(on, pieces),
            [new SceneLayout("sheets", Corners(box), frames, items, [], []) { ByHand = byHand }]);
    }

    /// <summary>Pages as they are printed, one beside the other, with what must stay clear.</summary>
    /// <param name="on">The project.</param>
    /// <param name="pages">Sheets with how they are printed and the address of their PDF.</param>
    /// <param name="modes">Names of the ways of looking: printed and cut, printed alone, cut alone.</param>
    /// <param name="byHand">Key of the stock whose pieces can be moved by hand; null where nothing can.</param>
    public static Scene Pages(OnDesk on, IReadOnlyList<(SheetLayout Sheet, PagePrinting How, string Pdf)> pages, (string Both, string Printed, string Cut) modes, string? byHand)
    {
        var frames = new List<SceneFrame>();
        var items = new List<SceneItem>();
        var drawn = new List<ScenePage>();
        var box = Box.Empty;
        double left = 0;
        var placed = pages.SelectMany(p => p.Sheet.Placements).Select(p => p.Piece).ToHashSet();
        var pieces = on.Value.Made.Pieces.Where(p => placed.Contains(p.Id)).ToList();
        foreach (var (sheet, how, pdf) in pages)
        {
            var sides = how.Flip is null ? 1 : 2;
            for (var side = 0; side < sides; side++)
            {
                var page = Box.FromSize(sheet.Width, sheet.Height).Move(left, 0);
                var name = sides == 1 ? $"Page {sheet.Number}" : $"Page {sheet.Number}, {(side == 0 ? "face" : "back")}";
                var size = Length.ShowSize(sheet.Width, sheet.Height, on.Value.SetOut.Units);
                frames.Add(new SceneFrame("sheet", Corners(page), Fill: "#FFFFFF", Label: name, Note: $"{sheet.SizeName}, {size}") { Sheet = side == 0 ? sheet.Id : null });
                frames.Add(new SceneFrame("printable", Corners(page.Grow(-how.MarginMm))));
                if (how.Marks is { } marks)
                {
                    var frame = PrintPages.FrameOf(sheet, marks);
                    var flip = (side == 0 ? Affine.Identity : PrintPages.ToBack(sheet, how.Flip!.Value)).Then(Affine.Move(left, 0));
                    frames.AddRange(marks.Zones(frame, sheet.Width, sheet.Height).Select(z => new SceneFrame("zone", Corners(Core.Geometry.Path.Rectangle(z.MinX, z.MinY, z.Width, z.Height).BoundsUnder(flip)), Label: side == 0 ? "keep clear" : null)));
                }
                drawn.Add(new ScenePage(pdf, side + 1, Corners(page)));
                if (side == 0) items.AddRange(sheet.Placements.Where(p => pieces.Exists(q => q.Id == p.Piece)).Select(p => new SceneItem(p.Piece, p.Copy, ScenePieces.Numbers(p.Place.Then(Affine.Move(left, 0)))) { Sheet = sheet.Id, Pinned = p.Pinned }));
                box = box.Include(page.Grow(6));
                left = page.MaxX + SheetGapMm;
            }
        }
        SceneLayout Layout(string name, bool withPages, bool withItems) =>
            new(name, Corners(box), frames, withItems ? items : [], [], []) { Pages = withPages ? drawn : null, Bare = true, ByHand = withItems ? byHand : null };
        return new Scene(on.Project.Head, Inches(on), Operations, ScenePieces.Shapes(pieces), Drawn(on, pieces),
            [Layout(modes.Both, true, true), Layout(modes.Printed, true, false), Layout(modes.Cut, false, true)]);
    }

    /// <summary>The mat in the sheet's coordinates; of one that goes on far beyond the sheet only what is near it.</summary>
    private static Box MatOf(SheetLayout sheet, Machine? machine)
    {
        return new Box(-MatEdgeMm, -MatEdgeMm, End(sheet.Width, machine?.MatWidthMm ?? 0), End(sheet.Height, machine?.MatHeightMm ?? 0));

        static double End(double sheet, double mat)
        {
            var shown = Math.Min(mat, sheet * MostMat);
            return shown > sheet ? shown + MatEdgeMm / 2 : sheet + MatEdgeMm;
        }
    }

    private static IEnumerable<SceneFrame> FramesOf(OnDesk on, SheetLayout sheet, Box mat, double left)
    {
        var stock = on.Drawer.Stocks.FirstOrDefault(s => s.Key == sheet.Stock);
        var (usable, offcut) = (sheet.Usable, sheet.Outline is null ? "" : $"{sheet.SizeName}, ");
        yield return new SceneFrame("mat", Corners(mat), Label: $"{stock?.Name ?? sheet.Stock}, sheet {sheet.Number}",
            Note: $"{offcut}{Length.ShowSize(sheet.Width, sheet.Height, on.Value.SetOut.Units)} · {sheet.Utilisation(on.Value.Made):0 %} full");
        var path = sheet.Outline is { } outline
            ? string.Concat(sheet.Blocked.Prepend(outline).Select(p => PathText.Write(p.Map(Affine.Move(left, 0)), ScenePieces.Decimals))) : null;
        yield return new SceneFrame("sheet", [left, 0, left + sheet.Width, sheet.Height], Fill: on.Drawer.ColourOf(sheet.Stock)) { Sheet = sheet.Id, Path = path };
        if (path is null) yield return new SceneFrame("border", [left + usable.MinX, usable.MinY, left + usable.MaxX, usable.MaxY]);
    }

    /// <summary>One sheet with the moment at which each line runs.</summary>
    public static Scene Run(OnDesk on, SheetLayout sheet, RunPlan plan)
    {
        var runs = new Dictionary<(string Piece, int Copy, string Line), int[]>();
        for (var step = 0; step < plan.Steps.Length; step++)
        {
            if (plan.Steps[step] is not Pass pass) continue;
            for (var i = 0; i < pass.Lines.Length; i++) runs[(pass.Lines[i].Piece, pass.Lines[i].Copy, pass.Lines[i].Line)] = [step, i];
        }
        var scene = Sheets(on, [sheet]);
        // Where foil is taped down, as seen from the sheet's face.
        var foils = plan.Steps.OfType<Stop>().SelectMany(s => s.Work.OfType<TapeFoil>()).Select(f => new SceneFrame("foil", Corners(f.Area), Fill: f.Ink, Label: $"{ColourWords.Name(f.Ink)} foil"));
        return scene with
        {
            Layouts = [.. scene.Layouts.Select(l => l with
            {
                Frames = [.. l.Frames, .. foils],
                Items = [.. l.Items.Select(i => i with { Runs = [.. scene.Pieces[i.Piece].Lines.Select(line => runs.GetValueOrDefault((i.Piece, i.Copy, line.Id)))] })],
            })],
        };
    }

    /// <summary>The card open and closed.</summary>
    public static Scene Card(OnDesk on)
    {
        var card = on.Value.SetOut.Card;
        var units = on.Value.SetOut.Units;
        var frames = new List<SceneFrame>
        {
            new("card", [0, 0, card.OpenWidth, card.OpenHeight], Label: "Open", Note: Length.ShowSize(card.OpenWidth, card.OpenHeight, units)),
        };
        frames.AddRange(card.Folds.Select(f => new SceneFrame("fold", [f.From.X, f.From.Y, f.To.X, f.To.Y])));
        var left = card.OpenWidth + SheetGapMm;
        if (card.Fold != CardFold.None)
            frames.Add(new SceneFrame("card", [left, 0, left + card.FoldedWidth, card.FoldedHeight], Label: "Closed", Note: Length.ShowSize(card.FoldedWidth, card.FoldedHeight, units)));
        if (card.Fold == CardFold.Gate)
            frames.Add(new SceneFrame("meeting", [left + card.FoldedWidth / 2, 0, left + card.FoldedWidth / 2, card.FoldedHeight]));
        var right = card.Fold == CardFold.None ? card.OpenWidth : left + card.FoldedWidth;
        return new Scene(on.Project.Head, Inches(on), Operations, new Dictionary<string, IReadOnlyList<string>>(), new Dictionary<string, ScenePiece>(),
            [new SceneLayout("card", [0, -6, right, Math.Max(card.OpenHeight, card.FoldedHeight)], frames, [], [], [])]);
    }

    private static Dictionary<string, ScenePiece> Drawn(OnDesk on, IEnumerable<Piece> pieces) => pieces.ToDictionary(p => p.Id, p => ScenePieces.Draw(on, p));

    private static ScenePin? Pin(int number, Finding finding, Project project, Func<int, Affine> placeOf, bool withLoose)
    {
        var design = project.Design;
        if (finding.At is not { } at) return null;
        if (finding.Piece is null) return withLoose ? PinAt(at) : null;
        var index = -1;
        for (var i = 0; i < design.Pieces.Length && index < 0; i++) index = design.Pieces[i].Id == finding.Piece ? i : -1;
        if (index < 0) return null;
        if (design.Pieces[index].Hidden) return null;
        return PinAt(placeOf(index).Apply(design.Pieces[index].Place.Inverse().Apply(at)));
        ScenePin PinAt(Point p) => new(number, p.X, p.Y, finding.Severity == Severity.Major ? "major" : "minor", FindingWords.For(finding, project.SetOut.Units), finding.Piece);
    }

    private static bool Inches(OnDesk on) => on.Value.SetOut.Units.AreInches();
    private static double[] Corners(Box b) => b.IsEmpty ? [0, 0, 100, 60] : [b.MinX, b.MinY, b.MaxX, b.MaxY];
}
