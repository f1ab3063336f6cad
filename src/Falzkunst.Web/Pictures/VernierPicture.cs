using System.Globalization;
using System.Text;
using Falzkunst.Core.Printing.Registration;

namespace Falzkunst.Web.Pictures;

/// <summary>A vernier enlarged: printed ticks above with their numbers, the hairlines that were cut below.</summary>
public static class VernierPicture
{
    public const int Width = 280, Height = 58;

    private const double Scale = 6.4, Middle = Width / 2.0, Line = 32;

    /// <summary>SVG that belongs into an element of <see cref="Width"/> by <see cref="Height"/>.</summary>
    /// <param name="offMm">How far the cut lies beyond the print, mm.</param>
    public static string Draw(double offMm)
    {
        var text = new StringBuilder("<g class=\"vernier\">");
        for (var i = -VernierPage.Side; i <= VernierPage.Side; i++)
        {
            var (tick, hair) = (Middle + i * VernierPage.PitchMm * Scale, Middle + (i * VernierPage.CutPitchMm + offMm) * Scale);
            text.Append(CultureInfo.InvariantCulture, $"<path class=\"tick\" d=\"M{tick:0.##} {Line - (i % 5 == 0 ? 18 : 13)}V{Line}\"/><path class=\"hair\" d=\"M{hair:0.##} {Line - 3}V{Height - 4}\"/>");
            if (i % 2 == 0) text.Append(CultureInfo.InvariantCulture, $"<text x=\"{tick:0.##}\" y=\"11\">{i}</text>");
        }
        return text.Append("</g>").ToString();
    }
}
