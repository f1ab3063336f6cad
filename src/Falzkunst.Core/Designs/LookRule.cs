using Falzkunst.Core.Catalogue;
namespace Falzkunst.Core.Designs;

/// <summary>
/// "Lines that look like this get this operation." A condition left null does not matter; all that are given must hold.
/// </summary>
/// <param name="Operation">The operation given.</param>
/// <param name="Stroke">Stroke colour #rrggbb, or "none".</param>
/// <param name="Fill">Fill colour #rrggbb, or "none".</param>
/// <param name="Dashed">Broken or unbroken strokes only.</param>
/// <param name="Closed">Closed or open lines only.</param>
/// <param name="Layer">Name of the layer, in any case.</param>
/// <param name="Fold">Which way scores fold.</param>
public sealed record LookRule(
    Operation Operation,
    string? Stroke = null,
    string? Fill = null,
    bool? Dashed = null,
    bool? Closed = null,
    string? Layer = null,
    FoldDirection? Fold = null)
{
    /// <summary>The line as the rule makes it.</summary>
    public WorkedItem Give(WorkedItem line)
    {
        var given = line.Operation == Operation ? line : line.With(Operation);
        return Operation == Operation.Score && Fold is not null ? given.With(given.EffectiveSettings with { Fold = Fold }) : given;
    }

    /// <summary>Colours that most lines have, whatever they are for.</summary>
    private static readonly string[] Plain = ["#000000", "#FFFFFF", "none"];

    /// <summary>
    /// The rule for lines of a kind, by what is typical of them: colour, broken strokes, a layer whose name says what is done. Names
    /// that a program gave, and whether a line is closed, are left out. Null where nothing is typical: a rule for all black lines
    /// would speak of everything.
    /// </summary>
    public static LookRule? Typical(Look look, Operation operation)
    {
        var colour = look.Stroke ?? look.Fill;
        var isColoured = colour is not null && !Plain.Contains(colour, StringComparer.OrdinalIgnoreCase);
        var layer = DefaultOperations.Suggested(look.Layer) is not null || DefaultOperations.Stated(look.Layer) is not null ? look.Layer : null;
        if (look.IsDrawnHere || (!isColoured && !look.Dashed && layer is null)) return null;
        return new LookRule(
            operation, Stroke: isColoured && look.Stroke is not null ? look.Stroke : null, Fill: isColoured && look.Stroke is null ? look.Fill : null,
            Dashed: look.Dashed ? true : null, Layer: layer);
    }

    /// <summary>The same lines are spoken of, whatever is said of them.</summary>
    public bool SpeaksOfTheSame(LookRule other) => this with { Operation = other.Operation, Fold = other.Fold } == other;

    public bool Fits(Look look) =>
        Agrees(Stroke, look.Stroke) && Agrees(Fill, look.Fill)
        && (Dashed is null || Dashed == look.Dashed)
        && (Closed is null || Closed == look.Closed)
        && (Layer is null || string.Equals(Layer, look.Layer, StringComparison.OrdinalIgnoreCase));

    /// <summary>The rule as one readable sentence, such as "Blue dashed lines are valley folds".</summary>
    public string InWords()
    {
        var words = new List<string>();
        if (Stroke is not null and not "none") words.Add(ColourWords.Name(Stroke));
        if (Dashed is { } dashed) words.Add(dashed ? "dashed" : "unbroken");
        if (Closed is { } closed) words.Add(closed ? "closed" : "open");
        words.Add("lines");
        if (Fill is not null) words.Add(Fill == "none" ? "without fill" : $"filled {ColourWords.Name(Fill)}");
        if (Layer is not null) words.Add($"in layer “{Layer}”");
        words.Add(Operation switch
        {
            Operation.Score when Fold is { } fold => $"are {fold.ToString().ToLowerInvariant()} folds",
            Operation.Score => "are folds",
            Operation.Cut => "are cut",
            Operation.Aid => "are aids, never made",
            Operation.Print => "are printed",
            Operation.Foil => "are foiled",
            Operation.Draw => "are drawn",
            Operation.Emboss => "are embossed",
            _ => "are perforated",
        });
        var text = string.Join(' ', words);
        return char.ToUpperInvariant(text[0]) + text[1..];
    }

    /// <summary>The text is a colour as rules have it: # and six digits, or nothing.</summary>
    public static bool IsColour(string? text) => string.IsNullOrEmpty(text) || StockColours.IsColour(text);

    private static bool Agrees(string? wanted, string? seen) =>
        wanted is null || string.Equals(wanted, seen ?? "none", StringComparison.OrdinalIgnoreCase);
}
