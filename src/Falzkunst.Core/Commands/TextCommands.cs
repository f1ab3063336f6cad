using System.Collections.Immutable;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Designs;
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
        new("text box", "text box 80", "Breaks the picked text's lines to a width; “inside 5” keeps that far from the piece's sides, “panel 5” from the folds beside it, alone lets lines be as wide as they are.", Box),
        new("fit words", "fit words", "Lines of the picked text that do not fit its box become smaller; “fit words off” breaks them again.", (_, w) => new FitWordsAction(!w.Take("off"))),
        new("form", "form swsh", "A form of letters beyond the usual ones that the face has; “off” goes back.", (_, w) => new FormAction(w.Word("a form"), !w.Take("off"))),
        new("cut out", "cut out bar 3 on slate 220", "Cuts the picked text as a piece of its own: letters united; “bar” or “bridges” with a size hold loose parts.", CutOut),
        new("tie", "tie bridges 1.2", "What holds the parts of words together that are a piece: “loose”, “bar” or “bridges”, with a size.", (_, w) => new TieAction(TieNamed(w), w.HasMore ? w.Length("a size") : null)),
        new("list", "list Ada; Ben; Cem", "A list for the fields in the piece's words, such as {name}; rows are parted by “;”. Alone takes it away.", (_, w) => new ListAction(w.HasMore ? Rows(w.Rest("rows")) : null)),
        new("row", "row 3 copies 0", "How many are made of a row of the list; 0 leaves it out.", (_, w) => new RowAction(w.Count("a row"), w.Take("copies") ? w.Count("a number") : throw w.Lacking("copies"))),
        new("along", "along arc 90", "Bends the picked text: “arc” with degrees, “line” with a line's id, alone sets it straight.", Along),
    ];

    private static string Typed(string words) => words.Replace("\\n", "\n", StringComparison.Ordinal);

    /// <summary>Rows are parted by semicolons on one line, where values are by commas.</summary>
    private static string Rows(string typed) => typed.Replace(';', '\n').Replace("\\n", "\n", StringComparison.Ordinal);

    private static WordTie TieNamed(CommandWords w) => w.OneOf("loose, bar or bridges", ("loose", WordTie.Loose), ("bar", WordTie.Bar), ("bridges", WordTie.Bridges));

    private static CutOutAction CutOut(BenchContext c, CommandWords w)
    {
        var action = new CutOutAction();
        if (w.HasMore && !w.PeekIs("on")) action = action with { Tie = TieNamed(w) };
        if (w.PeekIsNumber) action = action with { Size = w.Length("a size") };
        return w.Take("on") ? action with { Stock = PieceCommands.StockNamed(c, w.Rest("a stock")) } : action;
    }

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
        !w.HasMore ? new TextBoxAction() : w.Take("inside") ? new TextBoxAction(Inside: w.Length("a distance")) : w.Take("panel") ? new TextBoxAction(Inside: w.Length("a distance"), Panel: true) : new TextBoxAction(Width: w.Length("a width"));

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
