using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Actions;

/// <summary>An action whose outcome is one line, which can be shown while a hand is still at it.</summary>
public interface ISketched
{
    /// <summary>The line in the card's coordinates.</summary>
    /// <exception cref="EditRefused">It does not fit what is picked, or its numbers are out of reach.</exception>
    Path Sketch(BenchContext c);
}
