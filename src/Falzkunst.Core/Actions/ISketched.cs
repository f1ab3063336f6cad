using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Actions;

/// <summary>An action whose outcome is a line or a text, which can be shown while a hand is still at it.</summary>
public interface ISketched
{
    /// <summary>Its lines in the card's coordinates.</summary>
    /// <exception cref="EditRefused">It does not fit what is picked, or its numbers are out of reach.</exception>
    IEnumerable<Path> Sketch(BenchContext c);
}
