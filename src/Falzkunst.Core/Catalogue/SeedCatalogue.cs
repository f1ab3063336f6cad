using System.Collections.Immutable;

namespace Falzkunst.Core.Catalogue;

/// <summary>The made-up stocks and machines that a new workshop starts with.</summary>
public static class SeedCatalogue
{
    private static readonly SheetSize Square12 = new("12 inch square", 304.8, 304.8, 12);
    private static readonly SheetSize Letter = new("letter", 215.9, 279.4, 20);
    private static readonly SheetSize A4 = new("A4", 210, 297, 20);

    public static ImmutableArray<Stock> Stocks { get; } =
    [
        new("kraft-240", "Kraft 240", "brown kraft board", 240, 0.32, "#B98F5E", 0.7,
            [Square12, A4],
            [Blade(165, 90, 0.42) with { NarrowestMm = 0.85 }, Score(210, 120), Pen(), Foil(190, 28, 125)]) { BothSidesAlike = true },
        new("mist-160", "Mist 160", "smooth coloured paper", 160, 0.20, "#A9BFC9", 0.9,
            [A4, Square12],
            [Blade(115, 130, 0.30), Score(150, 140), Pen(), Foil(160, 32, 115)]) { BothSidesAlike = true },
        new("slate-220", "Slate 220", "dyed-through card", 220, 0.28, "#56646D", 0.8,
            [Square12, A4],
            [Blade(150, 70, 0.38), Score(195, 120), Pen()]) { BothSidesAlike = true },
        new("ember-220", "Ember 220", "dyed-through card", 220, 0.28, "#A6462F", 0.8,
            [A4, Square12],
            [Blade(150, 80, 0.38), Score(195, 120), Pen(), Foil(175, 30, 120)]) { BothSidesAlike = true },
        new("chalk-200", "Chalk 200", "white card, smooth", 200, 0.25, "#F3EEE1", 0.7,
            [A4, Square12],
            [Blade(140, 100, 0.35), Score(180, 130), Pen(), Foil(170, 30, 118), Emboss()]) { BothSidesAlike = true, TakesPrint = true },
        new("chalk-200-printed", "Chalk 200 printed", "white card for the printer", 200, 0.25, "#EBE2CB", 0.7,
            [A4, Letter],
            [Blade(145, 90, 0.36), Score(180, 120), Pen()]) { TakesPrint = true },
    ];

    public static ImmutableArray<Machine> Machines { get; } =
    [
        new("solo-305", "Solo 305", 304.8, 304.8, new Borders(5, 5, 5, 5),
            [new("holder", [Tool.Pen, Tool.FoilTip, Tool.EmbossTip, Tool.ScoreTip, Tool.Blade])],
            ReadsMarks: false, TopSpeed: 220, Acceleration: 1800, LiftSeconds: 0.14),
        new("twin-330", "Twin 330", 330, 330, new Borders(5, 5, 5, 5),
            [
                new("left", [Tool.Pen, Tool.FoilTip, Tool.EmbossTip, Tool.ScoreTip]),
                new("right", [Tool.Blade]),
            ],
            ReadsMarks: true, TopSpeed: 300, Acceleration: 2500, LiftSeconds: 0.12),
        new("broad-610", "Broad 610", 610, 1200, new Borders(8, 10, 15, 10),
            [
                new("front", [Tool.Pen, Tool.FoilTip, Tool.EmbossTip, Tool.ScoreTip, Tool.Blade]),
                new("back", [Tool.ScoreTip, Tool.EmbossTip, Tool.Blade]),
            ],
            ReadsMarks: true, TopSpeed: 600, Acceleration: 4000, LiftSeconds: 0.09),
    ];

    /// <summary>All of it.</summary>
    public static Drawer Drawer => new(Stocks, Machines) { Tools = Tools };

    public static ImmutableArray<CraftTool> Tools { get; } =
    [
        new("pen-ink", CraftToolKind.Pen, "Ink black, fine", "#1D2A30", 0.4),
        new("pen-violet", CraftToolKind.Pen, "Violet, fine", "#6B2FA0", 0.4),
        new("pen-rust", CraftToolKind.Pen, "Rust, medium", "#A6462F", 0.7),
        new("pen-pine", CraftToolKind.Pen, "Pine green, fine", "#2F6B4A", 0.4),
        new("pen-white", CraftToolKind.Pen, "White gel", "#F7F5EF", 0.8),
        new("foil-gold", CraftToolKind.Foil, "Gold foil", "#B8860B", null),
        new("foil-silver", CraftToolKind.Foil, "Silver foil", "#9AA3A8", null),
        new("foil-copper", CraftToolKind.Foil, "Copper foil", "#A8623A", null),
        new("tip-foil-fine", CraftToolKind.FoilTip, "Fine foil tip", null, 0.8),
        new("tip-foil-broad", CraftToolKind.FoilTip, "Broad foil tip", null, 1.4),
        new("tip-emboss-fine", CraftToolKind.EmbossTip, "Fine ball", null, 1.2),
        new("tip-emboss-broad", CraftToolKind.EmbossTip, "Broad ball", null, 2.4),
        new("tip-score", CraftToolKind.ScoreTip, "Score wheel", null, null),
        new("blade-fine", CraftToolKind.Blade, "Blade for paper", null, null),
        new("blade-deep", CraftToolKind.Blade, "Blade for board", null, null),
        new("printer-desk", CraftToolKind.Printer, "Desk printer", null, 4.2),
        new("printer-depot", CraftToolKind.Printer, "Depot photo printer", null, 3),
    ];

    private static ToolSettings Blade(int force, double speed, double bladeOut) => new(Tool.Blade, force, speed, BladeOutMm: bladeOut);
    private static ToolSettings Score(int force, double speed) => new(Tool.ScoreTip, force, speed);
    private static ToolSettings Pen() => new(Tool.Pen, 35, 140);
    private static ToolSettings Foil(int force, double speed, int celsius) =>
        new(Tool.FoilTip, force, speed, TemperatureCelsius: celsius, WarmUpSeconds: 300);
    private static ToolSettings Emboss() => new(Tool.EmbossTip, 230, 60, Times: 2);
}
