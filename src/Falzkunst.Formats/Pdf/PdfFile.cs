using System.IO;
using System.IO.Compression;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using PdfSharp.Drawing;
using PdfSharp.Pdf;
using PdfSharp.Pdf.Advanced;

namespace Falzkunst.Formats.Pdf;

/// <summary>A PDF under way, on PDFsharp: pages in mm with their boxes, forms, pictures, layers, and what its colours mean.</summary>
internal sealed class PdfFile : IDisposable
{
    private const double PointsPerMm = 72 / 25.4;

    private readonly PdfDocument _document = new();
    private readonly List<PdfDictionary> _layers = [];

    /// <param name="title">What a reader shows as its title.</param>
    public PdfFile(string title)
    {
        // Streams are packed here; what the library packs, checkers complain about.
        _document.Options.CompressContentStreams = false;
        _document.Info.Title = title;
        _document.Info.Creator = "Falzkunst";
        // Readers are asked to print it as large as it is.
        _document.Internals.Catalog.Elements["/ViewerPreferences"] = new PdfDictionary(_document) { Elements = { ["/PrintScaling"] = new PdfName("/None") } };
        var profile = Stream(SrgbProfile.Bytes);
        profile.Elements["/N"] = new PdfInteger(3);
        var intent = new PdfDictionary(_document)
        {
            Elements =
            {
                ["/Type"] = new PdfName("/OutputIntent"), ["/S"] = new PdfName("/GTS_PDFA1"), ["/OutputConditionIdentifier"] = new PdfString("sRGB IEC61966-2.1"),
                ["/Info"] = new PdfString("sRGB IEC61966-2.1"), ["/DestOutputProfile"] = profile.Reference,
            },
        };
        _document.Internals.Catalog.Elements["/OutputIntents"] = new PdfArray(_document, intent);
    }

    /// <summary>A page of a size with its boxes, mm from its upper left corner.</summary>
    public void AddPage(double width, double height, Box trim, Box bleed, PdfContent content, IReadOnlyDictionary<string, PdfDictionary> objects)
    {
        var page = _document.AddPage();
        page.MediaBox = Rectangle(Box.FromSize(width, height), height);
        page.CropBox = page.MediaBox;
        page.TrimBox = Rectangle(trim, height);
        page.BleedBox = Rectangle(bleed, height);
        // From mm with y down to points with y up.
        var whole = new PdfContent().Save().Map(new Affine(PointsPerMm, 0, 0, -PointsPerMm, 0, height * PointsPerMm));
        page.Elements["/Contents"] = Stream([.. whole.Bytes, .. content.Bytes, .. new PdfContent().Restore().Bytes]).Reference;
        page.Elements["/Resources"] = Resources(objects);
    }

    /// <summary>A drawing that is used many times.</summary>
    public PdfDictionary Form(Box box, PdfContent content, IReadOnlyDictionary<string, PdfDictionary> objects)
    {
        var form = Stream(content.Bytes);
        form.Elements["/Type"] = new PdfName("/XObject");
        form.Elements["/Subtype"] = new PdfName("/Form");
        form.Elements["/BBox"] = new PdfRectangle(new XPoint(box.MinX, box.MinY), new XPoint(box.MaxX, box.MaxY));
        form.Elements["/Resources"] = Resources(objects);
        return form;
    }

    /// <summary>A picture, dot for dot, and how opaque it is where it is not wholly so.</summary>
    public PdfDictionary Picture(PixelImage image)
    {
        var dots = image.Width * image.Height;
        var colours = new byte[3 * dots];
        var opacity = image.IsTransparent ? new byte[dots] : null;
        for (var i = 0; i < dots; i++)
        {
            image.Rgba.AsSpan(4 * i, 3).CopyTo(colours.AsSpan(3 * i));
            if (opacity is not null) opacity[i] = image.Rgba[4 * i + 3];
        }
        var picture = Dots(image, colours, "/DeviceRGB");
        if (opacity is not null) picture.Elements["/SMask"] = Dots(image, opacity, "/DeviceGray").Reference;
        return picture;
    }

    /// <summary>Between two stops at one place colour changes over this share of a shading: a function has no room for two values, and numbers are written to a thousandth.</summary>
    private const double LeastStep = 0.002;

    /// <summary>A shading in its own plane (ISO 32000-1, 8.7.4.5.3 and 8.7.4.5.4).</summary>
    public PdfDictionary Shade(Shading shading)
    {
        var made = new PdfDictionary(_document);
        made.Elements["/ShadingType"] = new PdfInteger(shading.Kind == ShadingKind.Linear ? 2 : 3);
        made.Elements["/ColorSpace"] = new PdfName("/DeviceRGB");
        made.Elements["/Coords"] = Reals(shading.Kind == ShadingKind.Linear ? [0, 0, 1, 0] : [shading.FocusX, shading.FocusY, 0, 0, 0, 1]);
        made.Elements["/Extend"] = new PdfArray(_document, new PdfBoolean(true), new PdfBoolean(true));
        made.Elements["/Function"] = Stitched(shading.Stops);
        _document.Internals.AddObject(made);
        return made;
    }

    /// <summary>Colour from stop to stop: exponential functions of exponent 1, stitched together (ISO 32000-1, 7.10.3 and 7.10.4).</summary>
    private PdfDictionary Stitched(IReadOnlyList<ShadingStop> stops)
    {
        var at = new List<double>();
        foreach (var stop in stops) at.Add(Math.Round(at.Count == 0 ? stop.At : Math.Max(stop.At, at[^1] + LeastStep), 3));
        var all = new PdfDictionary(_document) { Elements = { ["/FunctionType"] = new PdfInteger(3) } };
        // Before the first stop and after the last their colours go on.
        var (ends, from, to) = (new List<double>(), new List<string> { stops[0].Colour }, new List<string> { stops[0].Colour });
        for (var i = 0; i < stops.Count; i++)
        {
            ends.Add(at[i]);
            from.Add(stops[i].Colour);
            to.Add(stops[Math.Min(i + 1, stops.Count - 1)].Colour);
        }
        var whole = 1 + (at[^1] >= 1 ? at[^1] - 1 + LeastStep : 0);
        all.Elements["/Domain"] = Reals(Math.Min(0, at[0]) - LeastStep, whole);
        all.Elements["/Bounds"] = Reals([.. ends]);
        all.Elements["/Functions"] = new PdfArray(_document, [.. from.Zip(to, (a, b) => new PdfDictionary(_document)
        {
            Elements = { ["/FunctionType"] = new PdfInteger(2), ["/Domain"] = Reals(0, 1), ["/C0"] = Reals(PdfContent.Shares(a)), ["/C1"] = Reals(PdfContent.Shares(b)), ["/N"] = new PdfInteger(1) },
        })]);
        all.Elements["/Encode"] = Reals([.. from.SelectMany(_ => new double[] { 0, 1 })]);
        return all;
    }

    private PdfArray Reals(params double[] numbers) => new(_document, [.. numbers.Select(n => new PdfReal(n))]);

    /// <summary>A layer that readers can show and hide.</summary>
    public PdfDictionary Layer(string name)
    {
        var layer = new PdfDictionary(_document) { Elements = { ["/Type"] = new PdfName("/OCG"), ["/Name"] = new PdfString(name, PdfStringEncoding.Unicode) } };
        _document.Internals.AddObject(layer);
        _layers.Add(layer);
        return layer;
    }

    /// <summary>Writes it to where can be sought in.</summary>
    public void Write(Stream to)
    {
        if (_layers.Count > 0)
        {
            var order = new PdfArray(_document, [.. _layers.Select(l => l.Reference!)]);
            _document.Internals.Catalog.Elements["/OCProperties"] = new PdfDictionary(_document)
            {
                Elements = { ["/OCGs"] = new PdfArray(_document, [.. _layers.Select(l => l.Reference!)]), ["/D"] = new PdfDictionary(_document) { Elements = { ["/Order"] = order } } },
            };
        }
        _document.Save(to, closeStream: false);
    }

    public void Dispose() => _document.Dispose();

    private PdfDictionary Dots(PixelImage image, byte[] bytes, string space)
    {
        var picture = Stream(bytes);
        picture.Elements["/Type"] = new PdfName("/XObject");
        picture.Elements["/Subtype"] = new PdfName("/Image");
        picture.Elements["/Width"] = new PdfInteger(image.Width);
        picture.Elements["/Height"] = new PdfInteger(image.Height);
        picture.Elements["/BitsPerComponent"] = new PdfInteger(8);
        picture.Elements["/ColorSpace"] = new PdfName(space);
        return picture;
    }

    private PdfDictionary Stream(byte[] bytes)
    {
        using var packed = new MemoryStream();
        using (var flate = new ZLibStream(packed, CompressionLevel.Fastest, leaveOpen: true)) flate.Write(bytes);
        var stream = new PdfDictionary(_document);
        stream.CreateStream(packed.ToArray());
        stream.Elements["/Filter"] = new PdfName("/FlateDecode");
        _document.Internals.AddObject(stream);
        return stream;
    }

    private PdfDictionary Resources(IReadOnlyDictionary<string, PdfDictionary> objects)
    {
        var drawn = new PdfDictionary(_document);
        var layers = new PdfDictionary(_document);
        var shadings = new PdfDictionary(_document);
        foreach (var (name, value) in objects)
            (value.Elements.ContainsKey("/ShadingType") ? shadings : value.Elements.GetName("/Type") == "/OCG" ? layers : drawn).Elements["/" + name] = value.Reference;
        return new PdfDictionary(_document) { Elements = { ["/XObject"] = drawn, ["/Properties"] = layers, ["/Shading"] = shadings } };
    }

    private static PdfRectangle Rectangle(Box box, double height) => new(
        new XPoint(box.MinX * PointsPerMm, (height - box.MaxY) * PointsPerMm), new XPoint(box.MaxX * PointsPerMm, (height - box.MinY) * PointsPerMm));
}
