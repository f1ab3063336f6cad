using Falzkunst.Core.Budgets;

namespace Falzkunst.Core.Pictures;

/// <summary>The light of a photographed page made even.</summary>
internal static class Lighting
{
    /// <summary>Each channel divided by how the paper's brightness goes over the page, so that paper comes out white all over.</summary>
    public static PixelImage Levelled(PixelImage image)
    {
        var made = image.Copy();
        for (var c = 0; c < 3; c++)
        {
            if (PaperLight.Find(image, c) is not { } light) continue;
            var channel = c;
            Parallel.For(0, image.Height, OnAllCores.OfCaller, y =>
            {
                for (var x = 0; x < image.Width; x++)
                {
                    var at = image.At(x, y) + channel;
                    made.Rgba[at] = (byte)Math.Clamp(image.Rgba[at] * PaperLight.White / light.At(x + 0.5, y + 0.5) + 0.5, 0, 255);
                }
            });
        }
        return made;
    }
}
