using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Assembling;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Tests;

/// <summary>
/// A whole alphabet of a thin italic face made strong enough, a letter at a time. Each statement was false for some letter: slits
/// stayed at one end in four where a round sweep met a square one, letters with a sharp notch were refused, stems beside their bowls
/// were left thin.
/// </summary>
public sealed class ThinLettersTests
{
    private const double Width = 0.8;

    /// <summary>Half of what a blade needs between two cuts: a slit that a closing with this radius fills, mm.</summary>
    private const double SlitMm = 0.03;

    private static readonly Design Letters = Assembler.Assemble(ArtFile.Read("thin-italic"), [], _ => "chalk-200");

    [Theory]
    [InlineData(0.4)]
    [InlineData(0)]
    public void Every_letter_keeps_its_parts_and_openings_and_nowhere_a_slit_a_crumb_or_a_place_too_thin(double gap)
    {
        Assert.InRange(Letters.Pieces.Length, 62, 70);
        var faults = Letters.Pieces.AsParallel().SelectMany(p => Faults(p, gap).Select(f => $"{p.Name}: {f}")).ToList();
        Assert.True(faults.Count == 0, string.Join('\n', faults));
    }

    private static IEnumerable<string> Faults(Piece piece, double gap)
    {
        var tried = Candidates.Try(piece, new Thicken(IsEven: false, Width, gap), Letters);
        if (tried.Result is not { } made)
        {
            yield return $"refused, {tried.Refusal!.Reason}";
            yield break;
        }
        var (before, after) = (Region.EvenOdd(piece.Paper.Rings), Region.EvenOdd(made.Piece.Paper.Rings));
        if (before.PartCount != after.PartCount) yield return $"{before.PartCount} parts became {after.PartCount}";
        if (before.OpeningCount != after.OpeningCount) yield return $"{before.OpeningCount} openings became {after.OpeningCount}";
        if (before.Minus(after.Grow(0.02, Corners.Round, 4)) is { Area: > 1e-4 } lost) yield return $"lost {lost.Area:0.0000} mm²";
        var slits = Slits(after).Minus(Slits(before).Grow(0.08, Corners.Round, 4)).Where(part => part.Area > 0.005, _ => true);
        if (!slits.IsEmpty) yield return $"a slit at {slits.Parts.First().Outer[0]}";
        var crumbs = after.Parts.SelectMany(p => p.Openings).Count(o => Math.Abs(Polygons.SignedArea(o)) < 0.02);
        if (crumbs > 0) yield return $"{crumbs} crumbs of air";
        if (made.Piece.Lines.Any(l => HasStepOfNoLength(l.Path))) yield return "a segment of no length";
        foreach (var thin in PieceWidths.Below(made.Piece, 0.97 * Width).Where(p => p.Kind is ThinKind.Neck or ThinKind.Strand))
        {
            if (!made.Limited.Any(l => l.At.DistanceTo(thin.At) < 1)) yield return $"{thin.WidthMm:0.00} at {thin.At}, and nothing said of it";
        }
    }

    private static Region Slits(Region of) => of.Grow(SlitMm, Corners.Round, 6).Grow(-1.01 * SlitMm, Corners.Round, 6).Minus(of);

    private static bool HasStepOfNoLength(Core.Geometry.Path path)
    {
        var at = path.Start;
        foreach (var segment in path.Segments)
        {
            if (segment is { IsCubic: false } && segment.End.DistanceTo(at) < 1e-7) return true;
            at = segment.End;
        }
        return false;
    }
}
