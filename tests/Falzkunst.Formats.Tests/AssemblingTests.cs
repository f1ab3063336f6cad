using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Checking;

namespace Falzkunst.Formats.Tests;

/// <summary>Ten small files, and the pieces that a crafter would expect of each.</summary>
public sealed class AssemblingTests
{
    private static string Summary(Design design) => string.Join("; ", design.Pieces.Select(p =>
        $"{p.Size.Width:0.##}x{p.Size.Height:0.##} {p.Lines.Count(l => p.RoleOf(l) == LineRole.Opening)} openings"
        + string.Concat(p.Lines.Where(l => p.RoleOf(l) == LineRole.Inner).GroupBy(l => l.Operation).OrderBy(g => g.Key).Select(g => $" {g.Count()} {g.Key.Word()}"))));

    [Theory]
    [InlineData("nested-outlines", "90x70 1 openings; 40x30 1 openings")]
    [InlineData("stacked-layers", "90x60 0 openings; 76x46 0 openings; 34.64x27.28 0 openings")]
    [InlineData("compound-path", "70x30 3 openings; 16x16 0 openings")]
    [InlineData("loose-folds", "100x40 0 openings 2 score")]
    [InlineData("doubled-outline", "40x40 0 openings")]
    [InlineData("all-alike", "100x40 1 openings 1 score 1 cut")]
    [InlineData("strokes-that-meet", "60x60.02 0 openings")]
    [InlineData("nearly-closed", "50x50 0 openings 1 cut")]
    [InlineData("pen-and-print", "70x40 0 openings 1 print 1 draw 1 perforate 1 aid")]
    public void The_pieces_are_those_a_crafter_expects(string file, string expected) =>
        Assert.Equal(expected, Summary(ArtFile.Assemble(ArtFile.Read(file))));

    [Fact]
    public void Every_copy_of_a_symbol_is_a_piece_with_its_own_fold()
    {
        var design = ArtFile.Assemble(ArtFile.Read("many-copies"));
        Assert.Equal(6, design.Pieces.Length);
        Assert.All(design.Pieces, p => Assert.Equal([Operation.Cut, Operation.Score], p.Lines.Select(l => l.Operation)));
        Assert.Empty(design.Loose);
    }

    [Theory]
    [InlineData("stacked-layers", "slate-220", false)]
    [InlineData("stacked-layers", "mist-160", true)]
    [InlineData("stacked-layers", "ember-220", true)]
    public void Stocks_follow_the_fill(string file, string stock, bool used) =>
        Assert.Equal(used, ArtFile.Assemble(ArtFile.Read(file)).Pieces.Any(p => p.Stock == stock));

    [Theory]
    [InlineData("doubled-outline", "doubled-line")]
    [InlineData("nearly-closed", "open-outline", "on-no-piece")]
    [InlineData("all-alike")]
    [InlineData("pen-and-print")]
    public void Findings_name_what_is_wrong_and_nothing_else(string file, params string[] codes) =>
        Assert.Equal(codes, Checks.Findings(ArtFile.Assemble(ArtFile.Read(file))).Select(f => f.Code));

    [Fact]
    public void Names_come_from_layers() => Assert.Equal(["Ground", "Mat", "Heart"], ArtFile.Assemble(ArtFile.Read("stacked-layers")).Pieces.Select(p => p.Name));

    [Fact]
    public void A_look_rule_wins_over_geometry_and_what_the_file_declares_wins_over_the_rule()
    {
        var fold = new LookRule(Operation.Perforate, Stroke: "#2040E0");
        Assert.Equal("100x40 0 openings 2 perforate", Summary(ArtFile.Assemble(ArtFile.Read("loose-folds"), fold)));
        var all = new LookRule(Operation.Emboss);
        var declared = ArtFile.Assemble(ArtFile.Read("pen-and-print"), all);
        Assert.Contains(declared.Loose.Select(l => l.Operation).Concat(declared.Pieces.SelectMany(p => p.Lines.Select(l => l.Operation))), o => o == Operation.Print);
    }

    [Fact]
    public void A_line_across_the_edge_is_pointed_out_with_its_length()
    {
        var design = ArtFile.Assemble(ArtFile.Parse("""
            <svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40" fill="none" stroke="#000">
              <rect x="5" y="5" width="40" height="30"/><g id="folds"><path d="M20 20H55"/></g></svg>
            """));
        var finding = Assert.Single(Checks.Findings(design));
        Assert.Equal("past-edge", finding.Code);
        Assert.Equal([10, 35], finding.LengthsMm.Select(mm => Math.Round(mm, 1)));
    }

    [Fact]
    public void Small_parts_of_a_layer_on_each_other_are_still_found_by_containment_not_by_group()
    {
        var design = ArtFile.Assemble(ArtFile.Parse("""
            <svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40" fill="none" stroke="#000" stroke-width=".2">
              <g id="left"><rect x="2" y="2" width="20" height="30"/><path d="M30 17H50" stroke="#00F" stroke-dasharray="2"/></g>
              <g id="right"><rect x="28" y="2" width="25" height="30"/></g></svg>
            """));
        Assert.Equal("Left: ; Right: Score", string.Join("; ", design.Pieces.Select(p => $"{p.Name}: {string.Join(",", p.Lines.Skip(1).Select(l => l.Operation))}")));
    }
}
