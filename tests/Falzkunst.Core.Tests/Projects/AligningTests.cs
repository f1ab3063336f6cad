using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Tests.Projects;

/// <summary>Spreading things evenly.</summary>
public sealed class AligningTests
{
    private static double[] Spread(params (double Left, double Width)[] boxes)
    {
        var pieces = boxes.Select((b, i) => Given.Piece($"p{i + 1}", b.Width, 8) with { Place = Affine.Move(b.Left, 3 * i) }).ToArray();
        var after = Aligning.Distribute(Given.ProjectOf(pieces).Design, Picked.OfPieces([.. pieces.Select(p => p.Id)]), across: true);
        Assert.Equal(pieces.Select(p => p.Place.Apply(default).Y), after.Pieces.Select(p => p.Place.Apply(default).Y));
        return [.. after.Pieces.Select(p => Math.Round(p.Place.Apply(default).X, 6))];
    }

    [Fact]
    public void Gaps_come_out_equal_and_the_first_and_the_last_stay() => Assert.Equal([0, 42.5, 95], Spread((0, 10), (12, 20), (95, 5)));

    [Fact]
    public void The_order_is_that_of_their_middles() => Assert.Equal([27.5, 5, 100], Spread((0, 60), (5, 10), (100, 10)));
}
