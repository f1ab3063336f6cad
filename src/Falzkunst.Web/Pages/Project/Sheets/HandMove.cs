using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;

namespace Falzkunst.Web.Pages.Project;

/// <summary>What a hand does to copies on a sheet, as the page says it; lengths in mm.</summary>
/// <param name="Sheet">Id of the sheet they lie on.</param>
/// <param name="Copies">Which, as "p1.1,p4.2".</param>
/// <param name="To">Id of the sheet under the hand.</param>
/// <param name="Degrees">How far they are turned, clockwise.</param>
/// <param name="AboutX">The point they are turned about, on the sheet they lie on.</param>
/// <param name="AboutY">Its distance from the top.</param>
/// <param name="X">How far they are moved across, from one sheet's coordinates to the other's.</param>
/// <param name="Y">How far they are moved down.</param>
/// <param name="Holds">Where they may not lie as they are, the nearest place is taken.</param>
public sealed record HandMove(string Sheet, string Copies, string? To, double Degrees, double AboutX, double AboutY, double X, double Y, bool Holds)
{
    public MovePlacements Edit() => new(Sheet, SheetsKey.ReadCopies(Copies), To ?? Sheet, Degrees, new Point(AboutX, AboutY), new Point(X, Y));
}
