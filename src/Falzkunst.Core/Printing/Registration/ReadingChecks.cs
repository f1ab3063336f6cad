using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing.Registration;

/// <summary>
/// Whether what was read of the marks is what the layout has: by the share of each arm that is seen, widths of lines, ends of arms,
/// how arms agree with one map, the corner that should be bare, and other shapes of a mark's form near it.
/// </summary>
internal sealed class ReadingChecks
{
    /// <summary>So many standard deviations hold in more than 95 of 100 cases where a map has three unknowns a row.</summary>
    public const double Deviations = 2.5;

    /// <summary>What the dots of scanner and printer are not known better than, mm.</summary>
    public const double FloorMm = 0.01;

    /// <summary>This share of an arm must look as it should; below the other nothing of it is there.</summary>
    private const double SeenShare = 0.8, SomeShare = 0.25;

    /// <summary>Ink spreads past an edge, or stays short of it, by this at most, mm and dots.</summary>
    private const double SpreadLimitMm = 0.14, SpreadLimitDots = 0.5;

    /// <summary>Arms agree with the map to this, mm and dots: a page that printer and scanner moved evenly stays under half of it.</summary>
    private const double EdgeLimitMm = 0.1, EdgeLimitDots = 0.3;

    /// <summary>Ends of arms, once the spread of the ink is taken off, mm and dots.</summary>
    private const double EndLimitMm = 0.15, EndLimitDots = 0.5;

    /// <summary>In a photo a lens bends what is straight a little otherwise than one term of it tells.</summary>
    private const double PhotoFactor = 2;

    /// <summary>All arms together may be too long or too short by this, mm and dots: a layout with other distances is told by arms that do not scale with them.</summary>
    private const double ArmsLimitMm = 0.045, ArmsLimitDots = 0.15;

    /// <summary>The most blur that scans have, dots, a dot's own included: thin lines look wider for it, as if ink had spread.</summary>
    private const double MostBlur = 1.53;

    /// <summary>All arms that run one way together may be turned against the map by this and three times what they scatter, degrees: a mark moved along an edge turns the map but not the arms.</summary>
    private const double TurnLimitDegrees = 0.12;

    /// <summary>What printers and scanners do to a page: scale along each edge, and shear, degrees.</summary>
    private const double ScaleLimit = 0.0125, SkewLimit = 0.6;

    /// <summary>A shape of a mark's form that faces like it is not told from it within this distance, mm.</summary>
    private const double DecoyMm = 30, DecoyDegrees = 5;

    private readonly MarkLayout _layout;
    private readonly List<ArmReading> _arms;
    private readonly MarkMatch _match;
    private readonly List<SeenMark> _seen;
    private readonly PictureMap _map;
    private readonly double _dot;
    private readonly Dictionary<LayoutArm, (double Edge, double Slip, double Turn, double End)> _off = [];

    public ReadingChecks(MarkLayout layout, List<ArmReading> arms, MarkMatch match, List<SeenMark> seen, PictureMap map, double dotsPerMm)
    {
        (_layout, _arms, _match, _seen, _map, _dot) = (layout, arms, match, seen, map, 1 / dotsPerMm);
        SpreadMm = MarkFinder.Spread(arms);
        foreach (var arm in arms.Where(a => a.Middles.Count > 0))
        {
            double Across(Point dot) => map.Back(dot) is var p && arm.Arm.IsLevel ? p.Y : p.X;
            double Along(Point dot) => (map.Back(dot) - arm.Arm.At(0, 0)).Dot(arm.Arm.Along);
            var edge = arm.Middles.Average(m => Across(m) - arm.Arm.Level);
            // Slip is what the ends of the arm's own line are off, apart from its mean.
            var half = arm.Middles.Count / 2;
            var slip = (arm.Middles.Take(half).Average(Across) - arm.Middles.Skip(arm.Middles.Count - half).Average(Across)) / 2;
            var end = arm.Ends.Select(e => e.IsFar ? Along(e.At) - arm.Arm.Mark.ArmMm - SpreadMm : -Along(e.At) - SpreadMm).DefaultIfEmpty(0).MaxBy(Math.Abs);
            // The turn by the two halves' means, which are half the seen length apart.
            var run = arm.Middles.Take(half).Average(Along) - arm.Middles.Skip(arm.Middles.Count - half).Average(Along);
            _off[arm.Arm] = (edge, slip, (arm.Arm.IsLevel ? arm.Arm.Along.X : arm.Arm.Along.Y) * 2 * slip / run, end);
        }
    }

    public bool IsPhoto { get; init; }
    public double SpreadMm { get; }

    /// <summary>The largest of what edges, ends and corners are off, mm.</summary>
    public double ResidualMm => _off.Values.Select(o => Math.Max(Math.Abs(o.Edge) + Math.Abs(o.Slip), Math.Abs(o.End))).DefaultIfEmpty(0).Max();

    /// <summary>The marks of which both arms look as they should.</summary>
    public ImmutableArray<MarkCorner> Sure => [.. _layout.Marks.Where(m => ArmsOf(m).All(a => a.Seen >= SeenShare && a.Ends.Count == 2)).Select(m => m.Corner)];

    /// <summary>The first thing that is wrong, the plainest ones before those that follow from them; null for nothing.</summary>
    /// <param name="hasNoMap">No map could be made of the arms.</param>
    public MarkRefusal? First(bool hasNoMap)
    {
        foreach (var mark in _layout.Marks)
        {
            var arms = ArmsOf(mark).ToList();
            var seen = arms.Min(a => a.Seen);
            if (seen < SeenShare || arms.Any(a => a.Ends.Count < 2))
                return Lacking(mark, _match, _seen, _map.Apply(mark.Outer), arms.Max(a => a.Seen) < SomeShare ? MarkTrouble.Missing : MarkTrouble.Covered);
        }
        if (hasNoMap) return new MarkRefusal(null, MarkTrouble.OtherLayout, null);
        if (!_layout.HasGround && _layout.Marks.Select(Decoy).FirstOrDefault(d => d is not null) is { } decoy) return decoy;
        if (_layout.Bare.Select(InBareCorner).FirstOrDefault(b => b is not null) is { } extra) return extra;
        var factor = IsPhoto ? PhotoFactor : 1;
        foreach (var arm in _arms)
        {
            if (Math.Abs(arm.WidthMm - arm.Arm.Mark.LineMm) / 2 > SpreadLimitMm + SpreadLimitDots * _dot) return At(arm, MarkTrouble.OtherLayout);
        }
        foreach (var arm in _arms)
        {
            var (edge, slip, _, end) = _off[arm.Arm];
            // An end that falls short of its place is covered or not printed; one that goes past it belongs to another layout.
            if (Math.Abs(end) > (EndLimitMm + EndLimitDots * _dot) * factor) return At(arm, end < 0 ? MarkTrouble.Covered : MarkTrouble.OtherLayout);
            if (Math.Abs(edge) > (EdgeLimitMm + EdgeLimitDots * _dot) * factor || Math.Abs(slip) > (EdgeLimitMm + EdgeLimitDots * _dot) * factor) return At(arm, MarkTrouble.Uneven);
        }
        return Together(factor);
    }

    /// <summary>What single arms do not tell: their mean length and their mean turns, against the map.</summary>
    private MarkRefusal? Together(double factor)
    {
        var longer = _arms.Average(a => Along(a, isFar: true) - Along(a, isFar: false) - a.Arm.Mark.ArmMm - 2 * SpreadMm);
        var limit = (ArmsLimitMm + ArmsLimitDots * _dot) * factor;
        // A line that is thin against its blur is a bell, as wide at half its height as one of the same variance (2.355 deviations).
        var line = _layout.Marks.Min(m => m.LineMm) / _dot;
        var wider = Math.Max(0, 2.355 * Math.Sqrt(MostBlur * MostBlur + line * line / 12) - line) * _dot;
        if (longer > limit || longer < -limit - wider) return new MarkRefusal(null, MarkTrouble.OtherLayout, null);
        foreach (var isLevel in new[] { true, false })
        {
            // Long arms tell a turn better: least squares through all of them weighs each by the cube of its length.
            var turns = _arms.Where(a => a.Arm.IsLevel == isLevel).Select(a => (Turn: _off[a.Arm].Turn, Weight: Math.Pow(a.Arm.Mark.ArmMm, 3))).ToList();
            var mean = turns.Sum(t => t.Turn * t.Weight) / turns.Sum(t => t.Weight);
            var scatter = Math.Sqrt(turns.Sum(t => (t.Turn - mean) * (t.Turn - mean)) / Math.Max(1, turns.Count - 1) / turns.Count);
            if (Math.Abs(mean) > (TurnLimitDegrees * Math.PI / 180 + Math.Min(3 * scatter, TurnLimitDegrees * Math.PI / 180)) * factor) return new MarkRefusal(null, MarkTrouble.OtherLayout, null);
        }
        return null;
    }

    private double Along(ArmReading arm, bool isFar) => (_map.Back(arm.Ends.First(e => e.IsFar == isFar).At) - arm.Arm.At(0, 0)).Dot(arm.Arm.Along);

    /// <summary>Whether a scan is as large as its resolution says, and its corners square.</summary>
    public static MarkRefusal? Scale(Affine map, double dotsPerMm)
    {
        var faults = PageFaults.Of(map);
        var isOff = Math.Abs(faults.ScaleX / dotsPerMm - 1) > ScaleLimit || Math.Abs(faults.ScaleY / dotsPerMm - 1) > ScaleLimit || Math.Abs(faults.SkewDegrees) > SkewLimit;
        return isOff ? new MarkRefusal(null, MarkTrouble.OtherLayout, null) : null;
    }

    /// <summary>A mark that is not there as it should be: mirrored where an L stands by it that faces another way, elsewhere where one faces its way.</summary>
    public static MarkRefusal Lacking(LayoutMark mark, MarkMatch match, List<SeenMark> seen, Point at, MarkTrouble otherwise)
    {
        var turn = match.Page.AsTurn().Degrees;
        var rest = seen.Where(s => !match.Marks.ContainsValue(s)).ToList();
        double TurnOf(SeenMark s) => Math.Abs(MarkMatch.Signed(MarkMatch.Turn(s, mark) - turn));
        var near = rest.Where(s => s.Corner.DistanceTo(at) < 1.7 * mark.ArmMm * match.Page.MeanScale).ToList();
        if (near.FirstOrDefault(s => TurnOf(s) > 45) is { } mirrored) return new MarkRefusal(mark.Corner, MarkTrouble.Mirrored, mirrored.Corner);
        if (rest.FirstOrDefault(s => TurnOf(s) <= DecoyDegrees) is { } elsewhere) return new MarkRefusal(mark.Corner, MarkTrouble.OtherLayout, elsewhere.Corner);
        return new MarkRefusal(mark.Corner, otherwise, at);
    }

    private IEnumerable<ArmReading> ArmsOf(LayoutMark mark) => _arms.Where(a => a.Arm.Mark == mark);

    private MarkRefusal At(ArmReading arm, MarkTrouble why) => new(arm.Arm.Mark.Corner, why, _map.Apply(arm.Arm.Mark.Outer));

    private MarkRefusal? Decoy(LayoutMark mark) => Alike(mark, 1, DecoyMm) is { } other ? new MarkRefusal(mark.Corner, MarkTrouble.Decoy, other.Corner) : null;

    /// <summary>A mark where the layout has none: the page is laid another way, or is another page.</summary>
    private MarkRefusal? InBareCorner(MarkCorner corner)
    {
        var one = _layout.Marks[0];
        var frame = Box.Around(_layout.Marks.Select(m => m.Outer));
        var (x, y) = (corner is MarkCorner.TopLeft or MarkCorner.BottomLeft ? frame.MinX : frame.MaxX, corner is MarkCorner.TopLeft or MarkCorner.TopRight ? frame.MinY : frame.MaxY);
        return Alike(new LayoutMark(corner, new Point(x, y), one.ArmMm, one.LineMm), 0, DecoyMm / 2) is { } other ? new MarkRefusal(corner, MarkTrouble.OtherLayout, other.Corner) : null;
    }

    /// <summary>A shape that faces as a mark does, at a distance from its place, mm; null where there is none.</summary>
    private SeenMark? Alike(LayoutMark mark, double fromMm, double toMm)
    {
        var (at, turn) = (_map.Apply(mark.Outer), _match.Page.AsTurn().Degrees);
        // A page that leans turns its corners by different angles.
        var degrees = DecoyDegrees * (IsPhoto ? 4 : 1);
        return _seen.FirstOrDefault(s => s.Corner.DistanceTo(at) * _dot is var off && off >= fromMm && off < toMm && Math.Abs(MarkMatch.Signed(MarkMatch.Turn(s, mark) - turn)) <= degrees);
    }
}
