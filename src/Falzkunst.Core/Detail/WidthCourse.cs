using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Detail;

/// <summary>A thin place with the course of the width through it.</summary>
/// <param name="Place">The place.</param>
/// <param name="Lines">Its middle lines, each with the width at its corners; an opening that is too small has none.</param>
public sealed record WidthCourse(ThinPlace Place, ImmutableArray<ImmutableArray<WidthAt>> Lines);

/// <summary>How wide it is somewhere.</summary>
/// <param name="At">On the middle line, mm.</param>
/// <param name="WidthMm">Diameter of the largest ball about it that touches no cut.</param>
public readonly record struct WidthAt(Point At, double WidthMm);
