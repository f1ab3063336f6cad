using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;

namespace Falzkunst.Web.Desk;

/// <summary>A size that a file may have been meant at.</summary>
/// <param name="Scale">What its lengths are multiplied by for it.</param>
/// <param name="Width">Width of what is drawn then, mm.</param>
/// <param name="Height">Height, mm.</param>
/// <param name="Why">What it would have been meant in.</param>
public sealed record LikelySize(double Scale, double Width, double Height, string Why);

/// <summary>A file is larger than anything in the drawer by far: it is kept, and its size asked.</summary>
public sealed class SizeAsked(Guid file, string name, double widthMm, double heightMm, ImmutableArray<LikelySize> sizes) : Exception("The size of a file is asked.")
{
    public Guid File { get; } = file;
    public string Name { get; } = name;
    public double WidthMm { get; } = widthMm;
    public double HeightMm { get; } = heightMm;
    public ImmutableArray<LikelySize> Sizes { get; } = sizes;
}

/// <summary>Sizes that art may have been meant at whose file says one that no paper has.</summary>
public static class LikelySizes
{
    /// <summary>Art up to so many times the longest side of any sheet is taken as it is: cards are split, and sheets of motifs are large.</summary>
    private const double ByFar = 3;

    /// <summary>Where the drawer is empty, sheets of a large mat are thought of, mm.</summary>
    private const double UsualSheet = 610;

    /// <summary>Nothing smaller than this is cut, mm.</summary>
    private const double Least = 10;

    private static readonly (double Scale, string Why)[] Units =
    [
        (1 / 25.4, "its inches were meant in millimetres"),
        (25.4 / 96, "its millimetres were meant as pixels, 96 to the inch"),
        (25.4 / 72, "its millimetres were meant as points, 72 to the inch"),
        (0.1, "its centimetres were meant in millimetres"),
        (0.01, "it was drawn in hundredths of a millimetre"),
        (0.001, "its metres were meant in millimetres"),
    ];

    private static double LongestSheet(Drawer drawer) =>
        drawer.Stocks.SelectMany(s => s.Sheets).Select(s => Math.Max(s.WidthMm, s.HeightMm)).DefaultIfEmpty(UsualSheet).Max();

    /// <summary>What is drawn is larger than any sheet in the drawer by far.</summary>
    public static bool AreAsked(Box extent, Drawer drawer) => Math.Max(extent.Width, extent.Height) > ByFar * LongestSheet(drawer);

    /// <summary>The sizes to choose from: other units by which it would fit a sheet, as large as the card, and as the file says.</summary>
    public static ImmutableArray<LikelySize> Guess(Box extent, OnDesk on)
    {
        var longest = LongestSheet(on.Drawer);
        var card = on.Value.SetOut.Card;
        var fit = Math.Min(card.OpenWidth / Math.Max(extent.Width, 1e-6), card.OpenHeight / Math.Max(extent.Height, 1e-6));
        LikelySize At(double scale, string why) => new(scale, extent.Width * scale, extent.Height * scale, why);
        return
        [
            .. Units.Select(u => At(u.Scale, u.Why)).Where(s => Math.Max(s.Width, s.Height) is var side && side <= longest * 1.05 && side >= Least),
            At(fit, "as large as the open card"),
            At(1, "as the file says"),
        ];
    }
}
