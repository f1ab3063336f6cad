using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Geometry.Overlay;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Tracing;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Core.Building;

/// <summary>What was traced of a picture as pieces, or as lines of one.</summary>
public static class TracedPieces
{
    /// <summary>Stands for a new piece that lines are laid on.</summary>
    public const string NewPiece = "new";

    /// <summary>Paper that a new piece has round its lines, mm.</summary>
    private const double RoundLinesMm = 5;

    /// <summary>More pieces than this are no design any more.</summary>
    public const int Most = 400;

    private const double FitMm = 0.02, WindowMm = 0.4;

    /// <summary>The design with what was traced.</summary>
    /// <param name="design">The design.</param>
    /// <param name="picture">Id of the picture.</param>
    /// <param name="traced">What was traced, in its dots.</param>
    /// <param name="settings">How.</param>
    /// <param name="operation">What middle lines are for.</param>
    /// <param name="onto">The piece that middle lines are laid on, or <see cref="NewPiece"/>; null for none.</param>
    /// <param name="again">What came of the last trace goes.</param>
    /// <param name="card">The open card, mm: the picture is taken to lie in its middle.</param>
    /// <param name="drawer">Stocks at hand.</param>
    /// <exception cref="EditRefused">Nothing was found, or far too much.</exception>
    public static Design Take(Design design, string picture, Traced traced, TraceSettings settings, Operation operation, string? onto, bool again, (double Width, double Height) card, Drawer drawer)
    {
        Check(settings);
        var of = design.RequirePicture(picture);
        var before = again ? of.Trace : null;
        if (before is not null) design = Without(design, before);
        var (width, height) = of.SizeMm;
        var onCard = Affine.Move((card.Width - width) / 2, (card.Height - height) / 2);
        var place = Affine.Scale(of.MmPerDot, of.MmPerDot).Then(onCard);
        if (!traced.Paths.Any()) throw new EditRefused(Reason.NothingTraced);
        if (settings.Mode == TraceMode.MiddleLines) return WithLines(design, of, traced, settings, operation, onto, place, drawer);
        var (isRim, isColours) = (settings.Mode == TraceMode.Rim, settings.Mode == TraceMode.Colours);
        ImmutableArray<Path> rim = isRim ? [.. traced.Areas.Select(a => a.Outline.Map(place))] : [];
        var areas = isRim
            ? Rims(rim, settings.BorderMm).Select(o => (Form: new PathArea(o, []), Colour: (string?)null))
            : traced.Areas.Select(a => (Form: new PathArea(a.Outline.Map(place), [.. a.Openings.Select(o => o.Map(place))]), Colour: (string?)a.Colour));
        var forms = areas.ToList();
        if (forms.Count > Most) throw new EditRefused(Reason.TracedTooMany, forms.Count, Most);
        var names = design.Pieces.Select(p => p.Name).ToHashSet();
        var name = NameOf(of);
        var made = new List<Piece>();
        foreach (var (form, colour) in forms)
        {
            var stock = drawer.StockFor(isColours ? colour : null);
            var outline = new Line("l1", form.Outline, Operation.Cut, Look.DrawnHere, null, null);
            var called = PieceNaming.Wished(isColours ? $"{ColourWords.Name(colour!)} of {name}" : name, names);
            names.Add(called);
            var bare = new Piece("", called, stock, 1, Affine.Identity, outline, []) { NextItem = 2 };
            var piece = isRim
                ? bare.WithForm(form.Outline, [], new FromRim(rim, settings.BorderMm, made.Count)).AtHome()
                : bare.Plus(form.Openings.Select(o => outline with { Path = o })).AtHome();
            if (isRim) piece = piece.Plus(of.On("", onCard.Then(piece.Place.Inverse())));
            made.Add(piece);
        }
        var first = design.NextPiece;
        design = design.Plus(design.Pieces.Length, made);
        var ids = Enumerable.Range(first, made.Count).Select(Design.PieceId).ToList();
        return Remembered(design, of.Id, new TraceRecord(settings, [.. ids.Select(id => new TracedPiece(id, design.Require(id).Shape.Hash))], null, []));
    }

    /// <summary>Names of the pieces of a picture's last trace that were changed by hand since, and would be lost when it is traced again.</summary>
    public static ImmutableArray<string> ChangedSince(Design design, TraceRecord trace) =>
        [.. trace.Made.Select(m => (Was: m, Now: design.Find(m.Piece))).Where(m => m.Now is not null && m.Now.Shape.Hash != m.Was.Shape).Select(m => m.Now!.Name)];

    /// <summary>Other paper round a traced rim.</summary>
    /// <exception cref="EditRefused">The piece follows no rim, or the number is out of reach.</exception>
    public static Design ChangeRim(Design design, string piece, double borderMm)
    {
        if (!(borderMm is >= 0 and <= FromRim.MostMm)) throw EditRefused.RangeMm(Measure.RingWidth, 0, FromRim.MostMm, "border");
        if (design.Require(piece).Follows is not FromRim rim) throw new EditRefused(Reason.FollowsNothing);
        return design.With(piece, p => Mats.Unlocked(p) with { Follows = rim with { BorderMm = borderMm } });
    }

    private static Design WithLines(Design design, CardPicture of, Traced traced, TraceSettings settings, Operation operation, string? onto, Affine place, Drawer drawer)
    {
        var paths = traced.Lines.Select(l => l.Path.Map(place)).ToList();
        Line Made(Path path) => new("", path, operation, Look.DrawnHere, null, WorkedItem.InkFor(operation, Look.DrawnHere));
        if (onto is null)
        {
            design = design.PlusLoose(paths.Select(Made));
            return Remembered(design, of.Id, new TraceRecord(settings, [], null, [.. design.Loose.Skip(design.Loose.Length - paths.Count).Select(l => l.Id)]));
        }
        var box = paths.Aggregate(Box.Empty, (b, p) => b.Include(p.Bounds));
        var isNew = onto == NewPiece;
        if (isNew)
        {
            var paper = box.Grow(RoundLinesMm);
            var outline = new Line("l1", Path.Rectangle(paper.MinX, paper.MinY, paper.Width, paper.Height), Operation.Cut, Look.DrawnHere, null, null);
            design = design.Plus(design.Pieces.Length, [new Piece("", PieceNaming.Wished(NameOf(of), design.Pieces.Select(p => p.Name).ToHashSet()), drawer.StockFor(null), 1, Affine.Identity, outline, []) { NextItem = 2 }.AtHome()]);
            onto = design.Pieces[^1].Id;
        }
        var piece = Mats.Unlocked(design.Require(onto));
        // Onto the middle of the piece, which need not lie in the middle of the card.
        var shift = piece.Place.Apply(piece.Size.Centre) - box.Centre;
        var home = Affine.Move(shift.X, shift.Y).Then(piece.Place.Inverse());
        var known = piece.Items.Select(i => i.Id).ToHashSet();
        var laid = piece.Plus(paths.Select(p => Made(p.Map(home))));
        design = design.With(onto, _ => laid);
        return Remembered(design, of.Id, new TraceRecord(settings, isNew ? [new TracedPiece(onto, laid.Shape.Hash)] : [], onto, [.. laid.Items.Where(i => !known.Contains(i.Id)).Select(i => i.Id)]));
    }

    private static string NameOf(CardPicture picture) => System.IO.Path.GetFileNameWithoutExtension(picture.Name) is { Length: > 0 } said ? said : "Picture";

    private static Design Remembered(Design design, string picture, TraceRecord trace) =>
        design with { Pictures = [.. design.Pictures.Select(p => p.Id == picture ? p with { Trace = trace } : p)] };

    private static Design Without(Design design, TraceRecord trace)
    {
        var gone = trace.Made.Select(m => m.Piece).ToHashSet();
        var lines = trace.Lines.ToHashSet();
        design = design with { Pieces = design.Pieces.RemoveAll(p => gone.Contains(p.Id)) };
        if (trace.Onto is null) return design with { Loose = design.Loose.RemoveAll(l => lines.Contains(l.Id)) };
        return design.Find(trace.Onto) is { } on ? design.With(on.Id, p => p with { Items = p.Items.RemoveAll(i => lines.Contains(i.Id)) }) : design;
    }

    /// <summary>Rims with paper left round them; those that then overlap are one, and what they enclose is filled.</summary>
    internal static IEnumerable<Path> Rims(ImmutableArray<Path> outlines, double border)
    {
        if (border <= 0) return outlines;
        var whole = Region.UnionOf(outlines.Select(o => Region.FromRings(Flattening.Flatten(o, 0.005), [])));
        return whole.Grow(border, Corners.Round, Arcs.QuarterEdges(border)).Parts.Select(p => CurveFit.Closed(p.Outer, FitMm, WindowMm));
    }

    private static void Check(TraceSettings s)
    {
        if (!(s.SmoothMm is >= TraceSettings.LeastSmoothMm and <= TraceSettings.MostSmoothMm)) throw EditRefused.RangeMm(Measure.TraceSmooth, TraceSettings.LeastSmoothMm, TraceSettings.MostSmoothMm, "smooth");
        if (!(s.SpeckMm is >= 0 and <= TraceSettings.MostSpeckMm)) throw EditRefused.RangeMm(Measure.SmallSize, 0, TraceSettings.MostSpeckMm, "speck");
        if (!(s.BorderMm is >= 0 and <= TraceSettings.MostBorderMm)) throw EditRefused.RangeMm(Measure.RingWidth, 0, TraceSettings.MostBorderMm, "border");
        if (!(s.CornerMm is >= 0 and <= TraceSettings.MostCornerMm)) throw EditRefused.RangeMm(Measure.TraceCorner, 0, TraceSettings.MostCornerMm, "corner");
        if (!(s.Colours is >= 2 and <= TraceHow.MostColours)) throw EditRefused.Range(Measure.TraceColours, 2, TraceHow.MostColours, "colours");
        if (s.Threshold is { } t && !(t is > 0 and < 1)) throw EditRefused.Range(Measure.TraceThreshold, 1, 99, "threshold");
    }
}
