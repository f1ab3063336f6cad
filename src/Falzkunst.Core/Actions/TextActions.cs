using Falzkunst.Core.Building;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Texts;

namespace Falzkunst.Core.Actions;

/// <summary>Words on the picked piece.</summary>
/// <param name="Words">The words; lines are parted by line feeds.</param>
/// <param name="Face">Key of the face; null for one that suits the operation.</param>
/// <param name="Height">Height of capital letters; null for one that suits the piece.</param>
/// <param name="Operation">What is done along the letters.</param>
/// <param name="X">Where on the card the middle of the first line stands; null for the middle of the piece.</param>
/// <param name="Y">Where on the card the first line stands.</param>
public sealed record WriteAction(
    string? Words, string? Face = null, [InMillimetres] double? Height = null, Operation Operation = Operation.Draw,
    [InMillimetres] double? X = null, [InMillimetres] double? Y = null) : BenchAction
{
    /// <summary>The face that words begin in: one line for a pen, outlines for a blade.</summary>
    public static string UsualFace(Operation operation) => operation == Operation.Cut ? "marker" : "line-plain";

    private const double UsualMm = 8, ShareOfPiece = 0.12;

    public override Edit For(BenchContext c)
    {
        var piece = c.Design.Require(c.Picked.OnlyPiece());
        var height = Height ?? Math.Round(Math.Clamp(Math.Min(piece.Size.Width, piece.Size.Height) * ShareOfPiece, 2, UsualMm), 1);
        var words = Writing.Cleaned(Words);
        var at = X is { } x && Y is { } y ? piece.Place.Inverse().Apply(new Point(x, y)) : piece.Size.Centre;
        var face = Face ?? UsualFace(Operation);
        var text = new TextItem("", words, face, height, Operation, WorkedItem.InkFor(Operation, Look.DrawnHere), Affine.Identity) { Align = TextAlign.Centre };
        // The middle of its box comes to the point.
        var shaped = c.Drawer.Faces.Shape(face, words) ?? throw new EditRefused(Reason.NoSuchFace, face) { Field = "face" };
        var set = TextSetting.InBox(shaped, words, text.Style);
        return new AddText(piece.Id, text with { Place = Affine.Move(at.X - set.Width / 2, at.Y - (X is null ? set.Height / 2 : height)) });
    }
}

/// <summary>What the picked text says.</summary>
public sealed record WordsAction(string? Words) : TextAction(TextPart.Words)
{
    protected override TextItem Changed(BenchContext c, Piece piece, TextItem text) => text with { Words = Writing.Cleaned(Words) };
}

/// <summary>The face of the picked text.</summary>
public sealed record FaceAction(string Face) : TextAction(TextPart.Face)
{
    protected override TextItem Changed(BenchContext c, Piece piece, TextItem text) => text with { Face = Face };
}

/// <summary>How large the picked text is, how far apart letters and lines are, how lines stand; null leaves it.</summary>
/// <param name="Height">Height of capital letters.</param>
/// <param name="Between">Added between letters, in hundredths of the capital height.</param>
/// <param name="Lines">From baseline to baseline, in capital heights.</param>
/// <param name="Align">How lines stand to each other.</param>
public sealed record LettersAction([InMillimetres] double? Height = null, double? Between = null, double? Lines = null, TextAlign? Align = null)
    : TextAction(Height is null ? TextPart.Spacing : TextPart.Size)
{
    protected override TextItem Changed(BenchContext c, Piece piece, TextItem text)
    {
        var after = text with
        {
            CapitalMm = Height is { } height ? height / text.Place.MeanScale : text.CapitalMm,
            LetterSpacing = Between is { } between && Math.Abs(between) < 1e6 ? (int)Math.Round(between * 10) : text.LetterSpacing,
            LineSpacing = Lines ?? text.LineSpacing,
        };
        return after with { Align = Align ?? text.Align };
    }
}

/// <summary>How wide the picked text's lines are.</summary>
/// <param name="Width">Lines are broken to fit this; null and nothing else for as wide as they are.</param>
/// <param name="Inside">As wide as the piece but for this at either side, whatever becomes of the piece.</param>
/// <param name="Panel">Only the panel between two folds in which the words are now, instead of all of the piece.</param>
public sealed record TextBoxAction([InMillimetres] double? Width = null, [InMillimetres] double? Inside = null, bool Panel = false) : TextAction(TextPart.Box)
{
    protected override TextItem Changed(BenchContext c, Piece piece, TextItem text) => text.IsShape && Inside is not null
        ? throw new EditRefused(Reason.WordsAreAPiece)
        : text with { BoxWidthMm = Inside is null && Width is { } w ? w / text.Place.MeanScale : null, InsidePieceMm = Inside, Panel = Inside is not null && Panel ? PanelOf(piece, text) : null, Along = null };

    /// <summary>The panel in which the middle of the words lies.</summary>
    private static int PanelOf(Piece piece, TextItem text)
    {
        var middle = text.PathsOn(piece).Aggregate(Box.Empty, (b, p) => b.Include(p.Bounds)) is { IsEmpty: false } box ? box.Centre.X : text.Place.E;
        var panels = Panels.On(piece);
        for (var i = 0; i < panels.Length; i++)
        {
            if (middle < panels[i].Right) return i;
        }
        return panels.Length - 1;
    }
}

/// <summary>Lines of the picked text that do not fit its box become smaller, all alike, instead of being broken.</summary>
public sealed record FitWordsAction(bool On = true) : TextAction(TextPart.Box)
{
    protected override TextItem Changed(BenchContext c, Piece piece, TextItem text) => text with { Shrinks = On };
}

/// <summary>A form of letters of the picked text beyond the usual ones, by the tag that its face has for it.</summary>
public sealed record FormAction(string Form, bool On = true) : TextAction(TextPart.Forms)
{
    protected override TextItem Changed(BenchContext c, Piece piece, TextItem text)
    {
        var there = c.Drawer.Faces.FormsOf(text.Face);
        if (!there.Contains(Form)) throw new EditRefused(Reason.NoSuchName, "form of letters", Form, there.ToList()) { Field = "form" };
        return text with { Forms = On ? [.. text.Forms.Where(f => f != Form), Form] : text.Forms.Remove(Form) };
    }
}

/// <summary>The picked text cut as a piece of its own.</summary>
/// <param name="Stock">Key of its stock; null for one that its piece is not of.</param>
/// <param name="Tie">What holds its parts together.</param>
/// <param name="Size">Height of the bar, or width of the bridges; null for what suits the letters.</param>
public sealed record CutOutAction(string? Stock = null, WordTie Tie = WordTie.Loose, [InMillimetres] double? Size = null) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var (piece, text) = TextAction.PickedText(c);
        var stock = Stock ?? c.Drawer.Offered.FirstOrDefault(s => s.Key != piece.Stock)?.Key ?? piece.Stock;
        var size = Size ?? WordShapes.UsualTieMm(Tie, text.CapitalMm * text.Place.MeanScale, LeastWidth.ForStock(c.Project.SetOut, stock, c.Drawer).Mm);
        return new WordsAsPiece(piece.Id, text.Id, stock, Tie, size);
    }
}

/// <summary>How the parts of the picked words are held together that are a piece.</summary>
public sealed record TieAction(WordTie Tie, [InMillimetres] double? Size = null) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var piece = c.Design.Require(c.Picked.OnlyPiece());
        var main = piece.Follows is FromWords { Of: { } of } ? c.Design.Require(of) : piece;
        if (main.Follows is not FromWords words || main.Worked(words.Text) is not TextItem text) throw new EditRefused(Reason.NoWordPiece);
        return new TieWords(main.Id, Tie, Size ?? WordShapes.UsualTieMm(Tie, text.CapitalMm * text.Place.MeanScale, LeastWidth.ForStock(c.Project.SetOut, main.Stock, c.Drawer).Mm));
    }
}

/// <summary>A list for the words of the picked piece.</summary>
/// <param name="Names">One row a line, its values parted by tabs, semicolons or commas; nothing takes the list away.</param>
public sealed record ListAction(string? Names = null) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var piece = c.Design.Require(c.Picked.OnlyPiece());
        return new SetNameList(piece.Id, NameListText.Read(Names, piece));
    }
}

/// <summary>How many are made of one row of the picked piece's list; 0 leaves it out.</summary>
/// <param name="Row">Number of the row.</param>
/// <param name="Copies">How many.</param>
public sealed record RowAction(int Row, int Copies) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var piece = c.Design.Require(c.Picked.OnlyPiece());
        if (piece.List is not { } list || list.Rows.All(r => r.Number != Row)) throw new EditRefused(Reason.NoListHere);
        return new SetNameList(piece.Id, list with { Rows = [.. list.Rows.Select(r => r.Number == Row ? r with { Copies = Copies } : r)] });
    }
}

/// <summary>The picked text along an arc or a line of its piece; straight again where neither is given.</summary>
/// <param name="Arc">How far round it goes, degrees: above 0 it bulges upwards.</param>
/// <param name="Line">Id of a line of the same piece.</param>
/// <param name="Offset">How far above the line it stands.</param>
/// <param name="Reversed">On the line's other side, run the other way.</param>
public sealed record AlongAction(double? Arc = null, string? Line = null, [InMillimetres] double Offset = 0, bool Reversed = false) : TextAction(TextPart.Along)
{
    protected override TextItem Changed(BenchContext c, Piece piece, TextItem text)
    {
        if (Line is not null && piece.Find(Line) is null) throw new EditRefused(Reason.NoSuchName, "line", Line, piece.Name) { Field = "line" };
        var along = Line is not null ? new TextAlong(Line, 0, Offset, Reversed) : Arc is { } arc && arc != 0 ? new TextAlong(null, arc, Offset, Reversed) : null;
        return text with { Along = along };
    }
}

/// <summary>An action that changes the one text that is picked.</summary>
/// <param name="What">What about it is another.</param>
public abstract record TextAction(TextPart What) : BenchAction, ISketched
{
    /// <summary>The text as it is wanted.</summary>
    /// <exception cref="EditRefused">The numbers do not fit it.</exception>
    protected abstract TextItem Changed(BenchContext c, Piece piece, TextItem text);

    public override Edit For(BenchContext c) => Change(c);

    private ChangeText Change(BenchContext c)
    {
        var (piece, text) = PickedText(c);
        return new ChangeText(piece.Id, Changed(c, piece, text) with { Shaped = null }, What);
    }

    public IEnumerable<Path> Sketch(BenchContext c)
    {
        var change = Change(c);
        var after = Writing.With(c.Design, change, c.Drawer.Faces).Require(change.Piece);
        return after.Worked(change.Text.Id)!.LinesOn(after).Select(l => l.Path.Map(after.Place));
    }

    /// <summary>Upper and lower ends of carets on the card, one for each place between the characters of the words as they would be; none while those are refused.</summary>
    public IReadOnlyList<(Point Top, Point Foot)> Carets(BenchContext c)
    {
        var change = Change(c);
        var after = Writing.With(c.Design, change, c.Drawer.Faces).Require(change.Piece);
        var text = (TextItem)after.Worked(change.Text.Id)!;
        // With a list the row that takes most room is shown, whose characters are not those that are typed.
        if (text.Shaped is not { } shaped || text.Filled is not null) return [];
        var map = text.PlaceOn(after).Then(after.Place);
        return [.. TextCarets.Places(text.SetOn(after), shaped, text.Words, text.CapitalMm).Select(p => (map.Apply(p.Top), map.Apply(p.Foot)))];
    }

    /// <summary>The one text that is picked, and its piece.</summary>
    /// <exception cref="EditRefused">No text is picked, or more than it.</exception>
    internal static (Piece Piece, TextItem Text) PickedText(BenchContext c) =>
        c.Picked.Lines is [{ Ids: [var id] } only] && c.Design.Require(only.Piece) is var piece && piece.Worked(id) is TextItem text ? (piece, text) : throw new EditRefused(Reason.OneTextOnly);
}
