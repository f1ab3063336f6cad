using System.Globalization;
using System.Text;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Printing;

namespace Falzkunst.Web.Pictures;

/// <summary>A small true picture of the sheets of one stock, side by side.</summary>
internal static class SheetPicture
{
    private const double Width = 176;
    private const double Height = 62;
    private const double Gap = 14;
    private const double OffcutSize = 40;

    /// <summary>Points round the outline of a piece.</summary>
    private const int CoarsePoints = 60;

    /// <summary>Printed layers on all sheets of a picture, beyond which they are left out.</summary>
    private const int MostPrints = 200;

    /// <summary>The outline of an offcut.</summary>
    public static string Svg(Offcut offcut, string colour)
    {
        var map = SmallPicture.Fit(offcut.Outline.Bounds, OffcutSize, OffcutSize, 2);
        var data = string.Concat(offcut.Holes.Prepend(offcut.Outline).Select(p => SmallPicture.Data(p.Map(map))));
        return string.Create(CultureInfo.InvariantCulture, $"<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 {OffcutSize} {OffcutSize}\"><path d=\"{data}\" fill=\"{colour}\" fill-rule=\"evenodd\" stroke=\"#24313A\" stroke-opacity=\".5\" stroke-width=\".8\"/></svg>");
    }

    public static string Svg(StockLayout layout, Design design, string colour)
    {
        var box = Core.Geometry.Box.FromSize(Math.Max(1, layout.Sheets.Sum(s => s.Width + Gap) - Gap), layout.Sheets.Select(s => s.Height).DefaultIfEmpty(1).Max());
        var map = SmallPicture.Fit(box, Width, Height, 2);
        var svg = new StringBuilder();
        double left = 0;
        var prints = 0;
        foreach (var sheet in layout.Sheets)
        {
            var on = Core.Geometry.Affine.Move(left, 0).Then(map);
            svg.Append(CultureInfo.InvariantCulture, $"<path d=\"{SmallPicture.Data((sheet.Outline ?? Core.Geometry.Path.Rectangle(0, 0, sheet.Width, sheet.Height)).Map(on))}\" fill=\"{colour}\" fill-opacity=\".35\" stroke=\"#24313A\" stroke-opacity=\".4\" stroke-width=\".5\"/>");
            foreach (var p in sheet.Placements)
            {
                if (design.Find(p.Piece) is not { } piece) continue;
                var paper = string.Concat(piece.Paper.Rings.Select(ring => SmallPicture.Data(ring.Map(p.Place.Then(on)), CoarsePoints)));
                svg.Append(CultureInfo.InvariantCulture, $"<path d=\"{paper}\" fill=\"{colour}\" fill-rule=\"evenodd\" stroke=\"#24313A\" stroke-width=\".4\"/>");
                // What of print is no picture, as long as that is little.
                if ((prints += PrintedArt.On(piece).Length) > MostPrints || PrintedArt.On(piece).IsEmpty) continue;
                svg.Append(CultureInfo.InvariantCulture, $"<clipPath id=\"c{prints}\"><path d=\"{paper}\" clip-rule=\"evenodd\"/></clipPath><g clip-path=\"url(#c{prints})\">{SmallPrint.Svg(PrintedArt.On(piece), p.Place.Then(on), _ => null)}</g>");
            }
            left += sheet.Width + Gap;
        }
        return string.Create(CultureInfo.InvariantCulture, $"<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 {Width} {Height}\">{svg}</svg>");
    }
}
