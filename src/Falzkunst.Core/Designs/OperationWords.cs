using Falzkunst.Core.Catalogue;

namespace Falzkunst.Core.Designs;

/// <summary>Names of operations, and the tool that does each.</summary>
public static class OperationWords
{
    /// <summary>The operations that a crafter can choose for a line, most used first.</summary>
    public static readonly IReadOnlyList<Operation> Choices =
    [
        Operation.Cut, Operation.Score, Operation.Perforate, Operation.Draw,
        Operation.Foil, Operation.Emboss, Operation.Print, Operation.Aid,
    ];

    /// <summary>As lines lie over each other in pictures: print below, cuts on top, so that what comes off is seen.</summary>
    public static readonly IReadOnlyList<Operation> LowestFirst =
    [
        Operation.Print, Operation.Emboss, Operation.Draw, Operation.Foil,
        Operation.Score, Operation.Perforate, Operation.Aid, Operation.Cut,
    ];

    /// <summary>The one word for it, lower case, as in files and on screen.</summary>
    public static string Word(this Operation operation) => operation switch
    {
        Operation.Print => "print",
        Operation.Draw => "draw",
        Operation.Foil => "foil",
        Operation.Emboss => "emboss",
        Operation.Score => "score",
        Operation.Perforate => "perforate",
        Operation.Cut => "cut",
        Operation.Aid => "aid",
        _ => throw new ArgumentOutOfRangeException(nameof(operation)),
    };

    /// <summary>Its two letters, where a word has no room.</summary>
    public static string Short(this Operation operation) => operation switch
    {
        Operation.Perforate => "Pf",
        var other => char.ToUpperInvariant(other.Word()[0]) + other.Word()[1..2],
    };

    /// <summary>The colour of its lines, #rrggbb, on screen and in files; pens and foils have an ink of their own instead.</summary>
    public static string Colour(this Operation operation) => operation switch
    {
        Operation.Print => "#5B6F91",
        Operation.Draw => WorkedItem.DefaultPen,
        Operation.Foil => WorkedItem.GoldFoil,
        Operation.Emboss => "#A3527A",
        Operation.Score => "#0F857F",
        Operation.Perforate => "#4C7A2F",
        Operation.Cut => "#24313A",
        Operation.Aid => "#9AA3A8",
        _ => throw new ArgumentOutOfRangeException(nameof(operation)),
    };

    /// <summary>The tool that runs it on a machine; null for what no machine tool does (print, aid).</summary>
    public static Tool? ToolFor(this Operation operation) => operation switch
    {
        Operation.Draw => Tool.Pen,
        Operation.Foil => Tool.FoilTip,
        Operation.Emboss => Tool.EmbossTip,
        Operation.Score => Tool.ScoreTip,
        Operation.Perforate or Operation.Cut => Tool.Blade,
        _ => null,
    };

    /// <summary>Reads an operation's word, in any case.</summary>
    public static bool TryRead(string word, out Operation operation)
    {
        foreach (var choice in Choices)
        {
            if (!string.Equals(choice.Word(), word, StringComparison.OrdinalIgnoreCase)) continue;
            operation = choice;
            return true;
        }
        operation = default;
        return false;
    }
}
