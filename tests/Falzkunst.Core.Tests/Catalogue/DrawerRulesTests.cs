using System.Collections.Immutable;
using CsCheck;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Catalogue;

/// <summary>What stocks, machines, tools and offcuts of the drawer may be like.</summary>
public sealed class DrawerRulesTests
{
    private static readonly Stock Slate = Given.Stock("slate-220");

    [Fact]
    public void What_ships_is_within_the_rules()
    {
        Assert.All(SeedCatalogue.Stocks, DrawerRules.Demand);
        Assert.All(SeedCatalogue.Machines, DrawerRules.Demand);
        Assert.All(SeedCatalogue.Tools, DrawerRules.Demand);
    }

    /// <summary>Each number beyond its limits is refused, and the field that it stands in is named.</summary>
    public static TheoryData<string, Stock> BadStocks => new()
    {
        { "name", Slate with { Name = " " } },
        { "name", Slate with { Name = new string('n', DrawerRules.LongestName + 1) } },
        { "grams", Slate with { GramsPerSquareMetre = 5 } },
        { "thickness", Slate with { ThicknessMm = 0 } },
        { "thickness", Slate with { ThicknessMm = double.NaN } },
        { "narrowest", Slate with { NarrowestMm = double.PositiveInfinity } },
        { "colour", Slate with { Colour = "red;}" } },
        { "sheet", Slate with { Sheets = [] } },
        { "sheetWidth", Slate with { Sheets = [new("Wide", 4000, 100, 1)] } },
        { "count", Slate with { Sheets = [new("A4", 210, 297, -1)] } },
        { "size", Slate with { Sheets = [new("A4", 210, 297, 1), new("a4", 100, 100, 1)] } },
        { "size", Slate with { Offcuts = [new(Slate.Sheets[0].Name, OffcutShapes.Rectangle(50, 50), [])] } },
        { "force", Slate with { Settings = [new(Tool.Blade, 0, 100)] } },
        { "times", Slate with { Settings = [new(Tool.Blade, 100, 100, Times: 21)] } },
        { "heat", Slate with { Settings = [new(Tool.FoilTip, 100, 100, TemperatureCelsius: 900)] } },
        { "set", Slate with { OtherSets = [new(Slate.SetName, [], ImmutableSortedDictionary<Tool, SettingNote>.Empty)] } },
        { "corners", Slate with { Offcuts = [new("Bow", Path.Polyline([new(0, 0), new(100, 100), new(100, 0), new(0, 100)], closed: true), [])] } },
    };

    [Theory, MemberData(nameof(BadStocks))]
    public void A_stock_out_of_reach_is_refused_at_its_field(string field, Stock stock) =>
        Assert.Equal(field, Assert.Throws<EditRefused>(() => DrawerRules.Demand(stock)).Field);

    [Fact]
    public void A_machine_out_of_reach_is_refused_at_its_field()
    {
        var twin = SeedCatalogue.Machines[1];
        foreach (var (field, machine) in new (string, Machine)[]
        {
            ("holder", twin with { Holders = [] }),
            ("takes", twin with { Holders = [new("left", [])] }),
            ("holderName", twin with { Holders = [new("one", [Tool.Pen]), new("ONE", [Tool.Pen])] }),
            ("top", twin with { Unreachable = new(101, 0, 0, 0) }),
            ("matWidth", twin with { MatWidthMm = 3001 }),
            ("matName", twin with { OtherMats = [twin.MatInUse] }),
            ("topSpeed", twin with { TopSpeed = 0 }),
            ("acceleration", twin with { Acceleration = double.NaN }),
            ("svg", twin with { Files = [] }),
            ("units", twin with { Files = [new(MachineFormat.Hpgl, 0)] }),
        })
            Assert.Equal(field, Assert.Throws<EditRefused>(() => DrawerRules.Demand(machine)).Field);
    }

    [Theory]
    [InlineData(CraftToolKind.Pen, null, 0.4, "colour")]
    [InlineData(CraftToolKind.Foil, "gold", null, "colour")]
    [InlineData(CraftToolKind.Pen, "#102030", null, "width")]
    [InlineData(CraftToolKind.FoilTip, null, null, "width")]
    [InlineData(CraftToolKind.Blade, null, 11.0, "width")]
    public void A_tool_out_of_reach_is_refused_at_its_field(CraftToolKind kind, string? colour, double? width, string field) =>
        Assert.Equal(field, Assert.Throws<EditRefused>(() => DrawerRules.Demand(new CraftTool("k", kind, "Name", colour, width))).Field);

    [Fact]
    public void A_key_is_free_and_a_key_whatever_the_name() => Gen.Select(Gen.String, Gen.String.Array[0, 5]).ForAll((name, others) =>
    {
        var taken = others.Aggregate(ImmutableArray<string>.Empty, (keys, other) => keys.Add(DrawerRules.FreeKey(other, keys)));
        var key = DrawerRules.FreeKey(name, taken);
        Assert.True(DrawerRules.IsKey(key), key);
        Assert.DoesNotContain(key, taken);
    });

    [Fact]
    public void An_L_is_its_rectangle_without_its_corner()
    {
        var shape = OffcutShapes.Angle(200, 150, 80, 50);
        Assert.Equal(200 * 150 - 80 * 50, Math.Abs(shape.SignedArea), 1e-9);
        Assert.Equal(new Box(0, 0, 200, 150), shape.Bounds);
        Assert.False(Region.EvenOdd([shape]).Contains(new Point(190, 140)));
        OffcutShapes.Demand(new Offcut("L", shape, []));
        Assert.Equal("goneWidth", Assert.Throws<EditRefused>(() => OffcutShapes.Angle(200, 150, 200, 50)).Field);
        Assert.Equal("goneHeight", Assert.Throws<EditRefused>(() => OffcutShapes.Angle(200, 150, 50, double.NaN)).Field);
    }

    [Fact]
    public void A_drawn_offcut_begins_at_its_box_and_is_refused_where_it_crosses_itself_or_is_too_small()
    {
        var drawn = OffcutShapes.Corners([new(40, 30), new(140, 30), new(140, 110), new(40, 90)]);
        Assert.Equal(new Point(0, 0), drawn.Bounds.Min);
        OffcutShapes.Demand(new Offcut("Drawn", drawn, []));
        Reason Refused(params Point[] corners) => Assert.Throws<EditRefused>(() => OffcutShapes.Demand(new Offcut("Drawn", OffcutShapes.Corners(corners), []))).Reason;
        Assert.Equal(Reason.OffcutCrosses, Refused(new(0, 0), new(100, 0), new(0, 60), new(100, 80)));
        var scribble = Gen.Select(Gen.Double[0, 300], Gen.Double[0, 300], (x, y) => new Point(x, y)).Array[5200].Fixed();
        Assert.Equal(Reason.OffcutCrosses, Assert.Throws<EditRefused>(() => OffcutShapes.Demand(new Offcut("Scribble", Path.Polyline([.. scribble], closed: true), []))).Reason);
        Assert.Equal(Reason.OffcutTooSmall, Refused(new(0, 0), new(50, 50), new(51, 50)));
        Assert.Equal(Reason.OutOfRange, Refused(new(0, 0), new(50, 50)));
        Assert.Equal(Reason.OutOfRange, Refused(new(0, 0), new(1e9, 0), new(0, 60)));
    }

    [Fact]
    public void Sizes_of_sheets_are_found_by_name_and_true()
    {
        foreach (var size in SheetSizes.Standard)
        {
            Assert.Equal(size, SheetSizes.Named(size.Name.ToUpperInvariant()));
        }
        Assert.Equal((215.9, 279.4), (SheetSizes.Named("Letter")!.WidthMm, SheetSizes.Named("Letter")!.HeightMm));
        Assert.Equal((139.7, 215.9), (SheetSizes.Named("Half letter")!.WidthMm, SheetSizes.Named("Half letter")!.HeightMm));
    }
}
