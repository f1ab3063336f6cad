namespace Falzkunst.Core.Pictures;

/// <summary>
/// Tells fast which dots look nearly like a colour. Colours are put into cells of equal red, green and blue; of most cells the middle
/// already tells whether all of the cell is near or none of it is, so that the three roots of OKLab are taken for the others alone.
/// </summary>
internal sealed class NearColour
{
    private const int Shift = 3, Side = 256 >> Shift, Width = 1 << Shift;

    /// <summary>The middle of each cell, and how far its farthest corner looks from that.</summary>
    private static readonly (OkLab Middle, double Reach)[] Cells = [.. Enumerable.Range(0, Side * Side * Side).Select(CellAt)];

    /// <summary>Between its corners a cell reaches hardly farther than at them: colours go evenly over eight steps.</summary>
    private const double Safe = 1.25;

    private enum Answer : byte
    {
        No,
        Yes,
        Look,
    }

    private readonly Answer[] _answers = new Answer[Cells.Length];
    private readonly OkLab _colour;
    private readonly double _square;

    /// <param name="colour">The colour.</param>
    /// <param name="tolerance">How far a near one is from it at most, in OKLab.</param>
    public NearColour(OkLab colour, double tolerance)
    {
        (_colour, _square) = (colour, tolerance * tolerance);
        for (var i = 0; i < _answers.Length; i++)
        {
            var (middle, reach) = Cells[i];
            var far = middle.DistanceTo(colour);
            _answers[i] = far + reach <= tolerance ? Answer.Yes : far - reach > tolerance ? Answer.No : Answer.Look;
        }
    }

    /// <summary>A dot's colour is near.</summary>
    public bool IsNear(byte red, byte green, byte blue) => _answers[((red >> Shift) * Side + (green >> Shift)) * Side + (blue >> Shift)] switch
    {
        Answer.No => false,
        Answer.Yes => true,
        _ => OkLab.From(red, green, blue).SquareTo(_colour) <= _square,
    };

    private static (OkLab, double) CellAt(int i)
    {
        int r = i / (Side * Side) * Width, g = i / Side % Side * Width, b = i % Side * Width;
        var middle = OkLab.From((byte)(r + Width / 2), (byte)(g + Width / 2), (byte)(b + Width / 2));
        var reach = 0.0;
        for (var k = 0; k < 8; k++)
            reach = Math.Max(reach, middle.DistanceTo(OkLab.From((byte)(r + (k & 1) * (Width - 1)), (byte)(g + (k >> 1 & 1) * (Width - 1)), (byte)(b + (k >> 2) * (Width - 1)))));
        return (middle, reach * Safe);
    }
}
