using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing.Registration;

/// <summary>
/// A page on which scraps are laid to have their outline taken: four marks, and between them a ground of small black and white
/// squares, so that paper of any colour covers something that was to be seen.
/// </summary>
/// <param name="Width">Of the page, mm.</param>
/// <param name="Height">Of the page, mm.</param>
public sealed record ScrapPage(double Width, double Height)
{
    /// <summary>Side of a square of the ground: a scan of 150 dots to the inch still shows its middle, mm.</summary>
    public const double CellMm = 0.7;

    /// <summary>The ground keeps so far from the frame of the marks, mm.</summary>
    private const double GapMm = 2;

    private static readonly MarkSettings Marks = MarkSettings.Usual with { HasFourth = true };

    private Box Frame => Marks.Frame(Width, Height);

    public MarkLayout Layout => MarkLayout.Of(Marks, Frame, Width, Height) with { HasGround = true };

    /// <summary>The marks as areas.</summary>
    public ImmutableArray<Path> MarkShapes => Marks.Shapes(Frame);

    /// <summary>Where the ground is, a whole number of squares each way, but for the zones of the marks.</summary>
    public Box Ground
    {
        get
        {
            var most = Frame.Grow(-GapMm);
            return new Box(most.MinX, most.MinY, most.MinX + Math.Floor(most.Width / CellMm) * CellMm, most.MinY + Math.Floor(most.Height / CellMm) * CellMm);
        }
    }

    /// <summary>Across and down, the squares of the ground.</summary>
    public (int Across, int Down) Cells => ((int)Math.Round(Ground.Width / CellMm), (int)Math.Round(Ground.Height / CellMm));

    /// <summary>A square is black; null where there is none.</summary>
    public bool? IsBlack(int across, int down)
    {
        var box = CellAt(across, down);
        return Zones.Any(z => z.Overlaps(box)) ? null : (across + down) % 2 == 0;
    }

    /// <summary>A square of the ground, mm.</summary>
    public Box CellAt(int across, int down) =>
        new(Ground.MinX + across * CellMm, Ground.MinY + down * CellMm, Ground.MinX + (across + 1) * CellMm, Ground.MinY + (down + 1) * CellMm);

    private ImmutableArray<Box> Zones => Marks.Zones(Frame, Width, Height);
}
