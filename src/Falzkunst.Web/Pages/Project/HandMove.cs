using System.Globalization;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;

namespace Falzkunst.Web.Pages.Project;

/// <summary>What a hand does to copies on a sheet, as the page says it.</summary>
/// <param name="Sheet">Id of the sheet they lie on.</param>
/// <param name="Copies">Which, as "p1.1,p4.2".</param>
/// <param name="To">Id of the sheet under the hand.</param>
/// <param name="Map">Degrees, the point turned about, and the move: five numbers between blanks.</param>
/// <param name="Holds">Where they may not lie as they are, the nearest place is taken.</param>
public sealed record HandMove(string? Sheet, string? Copies, string? To, string? Map, bool Holds)
{
    /// <exception cref="EditRefused">That is no move.</exception>
    public MovePlacements Edit()
    {
        var numbers = (Map ?? "").Split(' ').Select(n => double.TryParse(n, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) && double.IsFinite(number) ? number : double.NaN).ToArray();
        if (numbers.Length != 5 || numbers.Any(double.IsNaN) || Sheet is null) throw new EditRefused("That move was not understood. Reload the page and try again.");
        return new MovePlacements(Sheet, SheetsKey.ReadCopies(Copies), To ?? Sheet, numbers[0], new Point(numbers[1], numbers[2]), new Point(numbers[3], numbers[4]));
    }
}
