using Falzkunst.Core.Pictures;
using Falzkunst.Core.Tracing;

namespace Falzkunst.Web.Wording;

/// <summary>Words for what is done to pictures.</summary>
public static class PictureWords
{
    /// <summary>What can be traced, in the order in which it is offered.</summary>
    public static readonly IReadOnlyList<(TraceMode Mode, string Word)> Modes =
        [(TraceMode.Rim, "rim"), (TraceMode.Areas, "areas"), (TraceMode.MiddleLines, "middle lines"), (TraceMode.Colours, "colours")];

    /// <summary>A step as it is listed.</summary>
    public static string For(PictureStep step) => step switch
    {
        Crop { Form: CropForm.Ellipse } => "cropped round",
        Crop => "cropped",
        Lay { Way: Orientation.QuarterLeft } => "turned to the left",
        Lay { Way: Orientation.QuarterRight } => "turned to the right",
        Lay { Way: Orientation.HalfTurn } => "turned upside down",
        Lay => "mirrored",
        Straighten s => FormattableString.Invariant($"straightened by {s.Degrees:0.#}°"),
        Unfold => "page made flat",
        LevelLight => "light levelled",
        BackgroundAway { Everywhere: true } b => FormattableString.Invariant($"a colour away everywhere, within {b.Tolerance * 100:0.#}"),
        BackgroundAway b => FormattableString.Invariant($"background away, within {b.Tolerance * 100:0.#}"),
        BackgroundGuessed => "background away from the edges",
        Brush { Gives: true } => "some given back",
        Brush => "some taken away",
        _ => "worked on",
    };
}
