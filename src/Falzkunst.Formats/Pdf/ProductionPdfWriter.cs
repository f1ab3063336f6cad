using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Formats.Production;
using PdfSharp.Pdf;

namespace Falzkunst.Formats.Pdf;

/// <summary>What goes to a machine as PDF at true size: a layer for each operation, by its word, in the order in which they run.</summary>
public static class ProductionPdfWriter
{
    private const double HairlineMm = 0.1;

    public static byte[] Write(ProductionPage page, string title)
    {
        using var file = new PdfFile(title);
        var content = new PdfContent().Stroking(HairlineMm, roundEnds: false);
        var layers = new Dictionary<string, PdfDictionary>(StringComparer.Ordinal);
        var names = new Dictionary<Operation, string>();
        foreach (var group in page.Groups)
        {
            if (!names.TryGetValue(group.Operation, out var name))
            {
                name = names[group.Operation] = $"L{names.Count}";
                layers[name] = file.Layer(group.Operation.Word());
            }
            content.BeginLayer(name).StrokeColour(group.Ink ?? group.Operation.Colour()).Stroke(group.Paths).EndLayer();
        }
        var whole = Box.FromSize(page.Width, page.Height);
        file.AddPage(page.Width, page.Height, whole, whole, content, layers);
        using var to = new System.IO.MemoryStream();
        file.Write(to);
        return to.ToArray();
    }
}
