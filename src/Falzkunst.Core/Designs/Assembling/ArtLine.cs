using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs.Assembling;

/// <summary>One line of a drawing on its way to a piece.</summary>
/// <param name="Path">The line, mm on the page.</param>
/// <param name="Look">How it looks.</param>
/// <param name="Operation">What it has been given so far.</param>
/// <param name="IsGiven">The file or a rule gave the operation; geometry may not change it.</param>
/// <param name="Group">The layer and fill that hold outlines and openings together.</param>
/// <param name="Order">Place in the painting order, lowest first.</param>
/// <param name="Name">Name of its shape.</param>
/// <param name="Rule">The rule that gave the operation; null where none did.</param>
/// <param name="Place">Where it stands in the file.</param>
/// <param name="Painted">How its file painted it.</param>
internal sealed record ArtLine(
    Path Path, Look Look, Operation Operation, bool IsGiven, RingGroup Group, int Order, string? Name, LookRule? Rule, string Place, PrintLook? Painted)
{
    public bool IsRing => Path.IsClosed && Operation == Operation.Cut;
}

/// <summary>Rings of one layer and one fill nest into outlines and openings; rings of different groups lie on top of each other.</summary>
internal readonly record struct RingGroup(string Layer, string? Fill);
