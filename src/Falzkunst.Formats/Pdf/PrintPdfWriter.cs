using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Printing;
using PdfSharp.Pdf;

namespace Falzkunst.Formats.Pdf;

/// <summary>
/// Pages to be printed as PDF at true size: vector where the art is vector, pictures dot for dot, words as outlines, colours in sRGB
/// as they were given, registration marks in pure black. A piece is drawn once and used for each of its copies.
/// </summary>
public static class PrintPdfWriter
{
    /// <summary>Width of trim marks and of the label's rule, mm.</summary>
    private const double HairlineMm = 0.1;

    /// <summary>A pattern has no more tiles on one piece.</summary>
    private const int MostTiles = 20_000;

    /// <summary>Tiles reach so far into their neighbours, so that no hair of paper shows between, mm.</summary>
    private const double TileOverlapMm = 0.02;

    /// <summary>Capital letters of the label are so high, and its rule has ticks so high, mm.</summary>
    private const double LabelCapitalMm = 2.2, TickMm = 1.6, RuleMm = 100;

    /// <summary>Writes pages.</summary>
    /// <param name="pages">The pages, each with the words of its label.</param>
    /// <param name="title">What the file is called.</param>
    /// <param name="dotsOf">The dots of a picture as it is printed; null where they are not there any more.</param>
    /// <param name="letters">Words as outlines with their baseline at 0, 0 and capitals of a height, mm.</param>
    /// <exception cref="BudgetSpent">A pattern has more tiles than can be printed.</exception>
    public static byte[] Write(
        IReadOnlyList<(PrintedPage Page, string Label)> pages, string title, Func<PictureItem, PixelImage?> dotsOf, Func<string, double, IEnumerable<Path>> letters)
    {
        using var to = new System.IO.MemoryStream();
        WriteAsync(pages, title, item => Task.FromResult(dotsOf(item)), letters, to, CancellationToken.None).GetAwaiter().GetResult();
        return to.ToArray();
    }

    /// <summary>Writes pages; of pictures one after the other is asked for, and none is held on to.</summary>
    /// <inheritdoc cref="Write"/>
    /// <param name="pages">The pages, each with the words of its label.</param>
    /// <param name="title">What the file is called.</param>
    /// <param name="dotsOf">The dots of a picture as it is printed; null where they are not there any more. It may be asked for the same one again.</param>
    /// <param name="letters">Words as outlines with their baseline at 0, 0 and capitals of a height, mm.</param>
    /// <param name="to">Where the file goes; it can be sought in.</param>
    /// <param name="stop">Whoever asked has left.</param>
    public static async Task WriteAsync(
        IReadOnlyList<(PrintedPage Page, string Label)> pages, string title, Func<PictureItem, Task<PixelImage?>> dotsOf, Func<string, double, IEnumerable<Path>> letters, System.IO.Stream to, CancellationToken stop)
    {
        using var file = new PdfFile(title);
        var drawn = new Drawn(file, dotsOf);
        foreach (var (page, label) in pages)
        {
            var content = new PdfContent();
            var objects = new Dictionary<string, PdfDictionary>(StringComparer.Ordinal);
            foreach (var copy in page.Copies.Where(c => !c.What.Layers.IsEmpty))
            {
                stop.ThrowIfCancellationRequested();
                var (name, form) = await drawn.PieceAsync(copy.What);
                objects[name] = form;
                content.Save().Map(copy.Place).Draw(name).Restore();
            }
            content.Black().Stroking(HairlineMm, roundEnds: false);
            if (!page.Trims.IsEmpty) content.Stroke(page.Trims);
            if (!page.Marks.IsEmpty) content.Fill(page.Marks, evenOdd: false);
            if (page.Label is { } place) Label(content, place, label, letters);
            file.AddPage(page.Width, page.Height, page.Trim, page.Bleed, content, objects);
        }
        file.Write(to);
    }

    private static void Label(PdfContent content, Box place, string words, Func<string, double, IEnumerable<Path>> letters)
    {
        var left = place.Centre.X - RuleMm / 2;
        var right = left + RuleMm;
        var rule = place.MaxY - TickMm;
        var outlines = letters(words, LabelCapitalMm).ToList();
        // Words that are longer than the rule are set smaller.
        var scale = Math.Min(1, RuleMm / Math.Max(outlines.Aggregate(Box.Empty, (all, p) => all.Include(p.Bounds)).MaxX, 1));
        if (outlines.Count > 0) content.Save().Map(Affine.Scale(scale, scale).Then(Affine.Move(left, rule - TickMm - 1))).Fill(outlines, evenOdd: false).Restore();
        Path Straight(double x0, double y0, double x1, double y1) => Path.Polyline([new(x0, y0), new(x1, y1)], closed: false);
        content.Stroke([Straight(left, rule, right, rule), Straight(left, rule - TickMm, left, rule + TickMm), Straight(right, rule - TickMm, right, rule + TickMm)]);
    }

    /// <summary>Pieces and pictures that are in the file already.</summary>
    private sealed class Drawn(PdfFile file, Func<PictureItem, Task<PixelImage?>> dotsOf)
    {
        private readonly Dictionary<PrintedPiece, (string, PdfDictionary)> _pieces = new(ReferenceEqualityComparer.Instance);
        private readonly Dictionary<(string?, string?), (string Name, PdfDictionary? Form)> _pictures = [];
        private readonly Dictionary<Shading, (string Name, PdfDictionary Made)> _shadings = [];
        private int _strips;

        public async Task<(string Name, PdfDictionary Form)> PieceAsync(PrintedPiece piece)
        {
            if (_pieces.TryGetValue(piece, out var known)) return known;
            var content = new PdfContent();
            var objects = new Dictionary<string, PdfDictionary>(StringComparer.Ordinal);
            content.Save().ClipTo(piece.Clip);
            foreach (var under in piece.Bleed.Under) Fill(content, objects, under);
            for (var i = 0; i < piece.Layers.Length; i++)
            {
                if (piece.Layers[i] is PictureLayer { Picture: var item }) await CarriedAsync(content, objects, piece, i, item);
            }
            foreach (var layer in piece.Layers) await LayerAsync(content, objects, layer, piece.Clip);
            content.Restore();
            var box = Box.Around(piece.Clip.Rings.SelectMany(r => r));
            var made = ($"P{_pieces.Count}", file.Form(box.IsEmpty ? Box.FromSize(1, 1) : box, content, objects));
            _pieces[piece] = made;
            return made;
        }

        private async Task LayerAsync(PdfContent content, Dictionary<string, PdfDictionary> objects, PrintLayer layer, Region clip)
        {
            switch (layer)
            {
                case FillLayer fill:
                    Fill(content, objects, fill);
                    break;
                case StrokeLayer stroke:
                    content.StrokeColour(stroke.Colour).Stroking(stroke.WidthMm, stroke.RoundEnds).Stroke(stroke.Strokes);
                    break;
                case PictureLayer { Picture: var item } when await PictureAsync(item) is { Form: { } form } picture:
                    objects[picture.Name] = form;
                    content.Save().Map(item.Place);
                    if (item.IsPattern) Tiles(content, picture.Name, item, clip);
                    else content.DrawPicture(picture.Name, item.Width, item.Height);
                    content.Restore();
                    break;
            }
        }

        private void Fill(PdfContent content, Dictionary<string, PdfDictionary> objects, FillLayer fill)
        {
            if (fill.Shading is not { } shading)
            {
                content.FillColour(fill.Colour).Fill(fill.Rings, fill.EvenOdd);
                return;
            }
            // The same one in its own plane stands in the file once, however often it is painted.
            var own = shading with { Place = Affine.Identity };
            if (!_shadings.TryGetValue(own, out var known)) _shadings[own] = known = ($"G{_shadings.Count}", file.Shade(own));
            objects[known.Name] = known.Made;
            content.Shade(fill.Rings, fill.EvenOdd, shading.Place, known.Name);
        }

        private async Task CarriedAsync(PdfContent content, Dictionary<string, PdfDictionary> objects, PrintedPiece piece, int layer, PictureItem item)
        {
            if (!CarriedEdge.IsWanted(piece.Bleed.Edge, layer, piece.BleedMm) || await dotsOf(item) is not { } dots || CarriedEdge.Of(piece.Bleed.Edge, layer, item, dots, piece.BleedMm) is not { } strip) return;
            var name = $"S{_strips++}";
            objects[name] = file.Picture(strip.Dots);
            content.Save().Map(strip.Place).DrawPicture(name, strip.Dots.Width, strip.Dots.Height).Restore();
        }

        private static void Tiles(PdfContent content, string name, PictureItem item, Region clip)
        {
            var back = item.Place.Inverse();
            var seen = Box.Around(clip.Rings.SelectMany(r => r).Select(back.Apply));
            if (seen.IsEmpty) return;
            int First(double mm, double size) => (int)Math.Floor(mm / size);
            var (x0, x1, y0, y1) = (First(seen.MinX, item.Width), First(seen.MaxX, item.Width), First(seen.MinY, item.Height), First(seen.MaxY, item.Height));
            if ((x1 - x0 + 1.0) * (y1 - y0 + 1.0) > MostTiles) throw new BudgetSpent(BudgetPart.Work, MostTiles);
            var overlap = TileOverlapMm / item.Place.MeanScale;
            for (var y = y0; y <= y1; y++)
            {
                for (var x = x0; x <= x1; x++)
                    content.Save().Map(Affine.Move(x * item.Width, y * item.Height)).DrawPicture(name, item.Width + overlap, item.Height + overlap).Restore();
            }
        }

        private async Task<(string Name, PdfDictionary? Form)> PictureAsync(PictureItem item)
        {
            if (_pictures.TryGetValue((item.Of, item.Key), out var known)) return known;
            return _pictures[(item.Of, item.Key)] = ($"I{_pictures.Count}", await dotsOf(item) is { } dots ? file.Picture(dots) : null);
        }
    }
}
