using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Tests.Designs;

/// <summary>Lines that are one row in the tray.</summary>
public sealed class LineKindsTests
{
    private static Piece With(string id, string layer) => Given.Piece(id, 50, 40,
        Given.Line(Path.Rectangle(10, 10, 5, 5), Operation.Cut) with { Look = Given.PlainLook with { Layer = layer } });

    [Theory]
    [InlineData("Layer_1", "Layer_2", true)]
    [InlineData("g12", "path4-7", true)]
    [InlineData("windows", "doors", false)]
    [InlineData("face", "facade", false)] // letters that are digits elsewhere make words too
    public void Names_that_programs_give_keep_no_lines_apart(string one, string other, bool isOneKind)
    {
        var kinds = LineKind.OnPieces([With("p1", one), With("p2", other)]);
        var openings = kinds.Where(k => k.Kind.Lines.Contains("l2")).ToList();
        Assert.Equal(isOneKind ? 1 : 2, openings.Count);
        Assert.Equal(["p1", "p2"], openings.SelectMany(k => k.On).Select(l => l.Piece));
    }
}
