using Falzkunst.Core.Designs;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Web.Wording;

/// <summary>What a number measures, as the beginning of a sentence about its limits.</summary>
public static class MeasureWords
{
    public static string For(Measure measure) => measure switch
    {
        Measure.PieceSize => "Each side of a piece",
        Measure.ShapeSize => "A shape's longer side",
        Measure.MoveDistance => "A move",
        Measure.TurnDegrees => "A turn in degrees",
        Measure.CardSize => "Each side of a card",
        Measure.Cards => "The number of cards",
        Measure.Quantity => "How many of a piece one card takes",
        Measure.Spacing => "Spacing",
        Measure.ScoreClearance => "How far scores stop short of a cut",
        Measure.NarrowestPart => "The narrowest part of a stock",
        Measure.TipWidth => "A tip's width",
        Measure.Dash => "A dash",
        Measure.DashGap => "A gap between dashes",
        Measure.StrokeDistance => "The distance of strokes",
        Measure.StrokeDegrees => "The angle of strokes in degrees",
        Measure.ForceGrams => "The force in grams",
        Measure.Speed => "The speed in mm/s",
        Measure.BladeOut => "The blade's length out",
        Measure.Celsius => "The heat in °C",
        Measure.TimesOver => "Times over",
        Measure.Places => "The number of places in rows and columns",
        Measure.AroundCount => "The number around a centre",
        Measure.Copies => "The number of copies made at a time",
        Measure.Borders => "The number of borders made at a time",
        Measure.BorderDistance => "The distance of a border",
        Measure.RingWidth => "A ring's width",
        Measure.BridgeWidth => "A bridge's width",
        Measure.BridgeCount => "The number of bridges of an island",
        Measure.Thickening => "What is thickened by or to",
        Measure.ArtScale => "What a file is scaled by",
        Measure.KeptGap => "A kept gap",
        Measure.SmallSize => "The size of small things",
        Measure.EdgeInset => "The distance from the edge",
        Measure.Layer => "The number of a layer, 1 the lowest,",
        Measure.NameLength => "The number of characters in a name",
        Measure.Corners => "The number of corners",
        Measure.StarDepth => "How far out the inner corners lie, in per cent,",
        Measure.Grams => "The weight in g/m²",
        Measure.Thickness => "The thickness",
        Measure.SheetSide => "Each side of a sheet",
        Measure.SheetCount => "The number of sheets",
        Measure.WarmUp => "The time to warm up in seconds",
        Measure.MatSide => "Each side of a mat",
        Measure.BorderStrip => "A border that no tool reaches",
        Measure.TopSpeed => "The highest speed in mm/s",
        Measure.Acceleration => "The acceleration in mm/s²",
        Measure.LiftSeconds => "The time of a lift in seconds",
        Measure.UnitsPerMm => "Units to the millimetre",
        Measure.OffcutSide => "Each side of an offcut",
        _ => throw new ArgumentOutOfRangeException(nameof(measure)),
    };
}
