using System.Collections.Immutable;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Texts;

namespace Falzkunst.Core.Commands;

/// <summary>Commands for words on pieces.</summary>
internal static class TextCommands
{
    private static readonly (string, TextAlign?)[] Aligns = [("left", TextAlign.Left), ("centre", TextAlign.Centre), ("right", TextAlign.Right)];

    public static readonly ImmutableArray<Command> All =
    [
        new("write", "write Night tram", "Words on the picked piece, drawn by a pen; \\n begins a new line.", (_, w) => new WriteAction(Typed(w.Rest("words")))),
        new("words", "words Night tram 7", "What the picked text says; \\n begins a new line.", (_, w) => new WordsAction(Typed(w.Rest("words")))),
        new("face", "face quill", "The face of the picked text.", (c, w) => new FaceAction(FaceNamed(c, w.Rest("a face")))),
        new("letters", "letters height 12 between 5 lines 1.6 centre", "Height of capitals, distance between letters in hundredths of it, from line to line in capital heights, and left, centre or right; what is not said stays.", Letters),
        new("text box", "text box 80", "Breaks the picked text's lines to a width; “inside 5” keeps that far from the piece's sides, alone lets lines be as wide as they are.", Box),
        new("along", "along arc 90", "Bends the picked text: “arc” with degrees, “line” with a line's id, alone sets it straight.", Along),
    ];

    private static string Typed(string words) => words.Replace("\\n", "\n", StringComparison.Ordinal);

    private static string FaceNamed(BenchContext c, string wanted) =>
        c.Drawer.Faces.All.FirstOrDefault(f => f.Key == wanted || f.Name.Equals(wanted, StringComparison.OrdinalIgnoreCase))?.Key
        ?? PieceCommands.Only(c.Drawer.Faces.All.Where(f => f.Name.Contains(wanted, StringComparison.OrdinalIgnoreCase)), f => f.Name, "face", wanted, c.Drawer.Faces.All.Select(f => f.Name)).Key;

    private static LettersAction Letters(BenchContext c, CommandWords w)
    {
        var action = new LettersAction();
        do
        {
            if (w.PeekIsNumber || w.Take("height")) action = action with { Height = w.Length("a height") };
            else if (w.Take("between")) action = action with { Between = w.Number("a distance") };
            else if (w.Take("lines")) action = action with { Lines = w.Number("a distance") };
            else action = action with { Align = w.OneOf("height, between, lines, left, centre or right", Aligns) };
        }
        while (w.HasMore);
        return action;
    }

    private static TextBoxAction Box(BenchContext c, CommandWords w) =>
        !w.HasMore ? new TextBoxAction() : w.Take("inside") ? new TextBoxAction(Inside: w.Length("a distance")) : new TextBoxAction(Width: w.Length("a width"));

    private static AlongAction Along(BenchContext c, CommandWords w)
    {
        if (!w.HasMore) return new AlongAction();
        var action = w.OneOf("arc or line", ("arc", true), ("line", false)) ? new AlongAction(Arc: w.Number("degrees")) : new AlongAction(Line: w.Word("a line"));
        while (w.HasMore)
        {
            if (w.Take("reversed")) action = action with { Reversed = true };
            else if (w.Take("offset")) action = action with { Offset = w.Length("a distance") };
            else throw w.Lacking("offset or reversed");
        }
        return action;
    }
}
