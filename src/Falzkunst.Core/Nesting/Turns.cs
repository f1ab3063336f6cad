using System.Collections.Immutable;

namespace Falzkunst.Core.Nesting;

/// <summary>The turns that a piece may be given, degrees clockwise on screen.</summary>
public sealed class Turns : IEquatable<Turns>
{
    private Turns(ImmutableArray<double> degrees, bool isFree) => (Degrees, IsFree) = (degrees, isFree);

    /// <summary>As it is drawn: paper with a grain or print whose direction matters.</summary>
    public static readonly Turns None = new([0], false);

    /// <summary>As drawn or upside down: along the grain.</summary>
    public static readonly Turns Half = new([0, 180], false);

    public static readonly Turns Quarters = new([0, 90, 180, 270], false);

    /// <summary>Any turn; the nester looks at every degree and at those in which an edge of the hull lies level or upright.</summary>
    public static readonly Turns Free = new([.. Enumerable.Range(0, 360).Select(d => (double)d)], true);

    /// <summary>Turns from 0 to below 360 degrees; whole degrees first where they are free.</summary>
    public ImmutableArray<double> Degrees { get; }

    public bool IsFree { get; }

    /// <summary>These turns and no others.</summary>
    /// <exception cref="ArgumentException">None is given, or one is not a number.</exception>
    public static Turns FromDegrees(IEnumerable<double> degrees)
    {
        var all = degrees.Select(d => double.IsFinite(d) ? (d % 360 + 360) % 360 : throw new ArgumentException("A turn is a number of degrees.", nameof(degrees)))
            .Distinct().Order().ToImmutableArray();
        return all.IsEmpty ? throw new ArgumentException("A piece has one turn at least.", nameof(degrees)) : new(all, false);
    }

    /// <summary>Every so many degrees, from 0 on.</summary>
    public static Turns Every(double step) => FromDegrees(Enumerable.Range(0, (int)Math.Ceiling(360 / Math.Clamp(step, 1, 360) - 1e-9)).Select(i => i * Math.Clamp(step, 1, 360)));

    public bool Equals(Turns? other) => other is not null && IsFree == other.IsFree && Degrees.SequenceEqual(other.Degrees);
    public override bool Equals(object? obj) => Equals(obj as Turns);
    public override int GetHashCode() => HashCode.Combine(IsFree, Degrees.Length, Degrees[0]);
}
