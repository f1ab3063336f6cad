using System.Globalization;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Nesting;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Web.Wording;

/// <summary>Why an edit cannot be done, in a sentence that says what to do.</summary>
public static class ReasonWords
{
    /// <summary>The sentence of a refusal.</summary>
    /// <param name="refused">The refusal.</param>
    /// <param name="units">What lengths are shown in.</param>
    public static string For(EditRefused refused, Units units)
    {
        var values = refused.Values.IsDefault ? [] : refused.Values;
        string V(int i) => i < values.Length ? Shown(values[i], units) : "";
        bool Has(int i) => i < values.Length && V(i).Length > 0;
        return refused.Reason switch
        {
            Reason.OutOfRange => $"{MeasureWords.For((Measure)values[0])} is between {V(1)} and {V(2)}.",

            Reason.PieceGone => "That piece is no longer in the project. Reload the page to see what is there now.",
            Reason.LinesGone => "Those lines are no longer there. Reload the page to see what is there now.",
            Reason.LookGone => "No line looks like that any more. Reload the page to see what is there now.",
            Reason.NodeGone => "That node is no longer there. Reload the page to see what is there now.",
            Reason.SegmentGone => "That part of the line is no longer there. Reload the page to see what is there now.",
            Reason.SheetGone => "That sheet is gone. Reload the page to see what is there now.",
            Reason.CopyGone => "One of those pieces does not lie on that sheet any more.",
            Reason.VariantGone => "That variant is no longer kept. Reload the page to see what is there now.",
            Reason.SmallThingGone => "That small thing is no longer there. Reload the page to see what is there now.",
            Reason.ProjectGone => "That project is no longer there.",
            Reason.RevisionGone => "That revision is not in this project's history.",
            Reason.FileGone => "That file is no longer in the project.",
            Reason.NoSuchStock => $"There is no stock “{V(0)}” in the drawer.",
            Reason.NoSuchMachine => $"There is no machine “{V(0)}”.",
            Reason.NameTaken => $"“{V(0)}” is there already. Choose another name.",
            Reason.NameLacks => "It needs a name.",
            Reason.NoSheetSizes => "A stock needs a sheet size; with none nothing can be laid on it.",
            Reason.TooManyInDrawer => $"There are {V(0)} of them already, as many as a drawer holds. Put some away or throw some out first.",
            Reason.OffcutCrosses => "That outline crosses itself. Go round it corner by corner.",
            Reason.OffcutTooSmall => "That is too small to lay anything on. An offcut has a square centimetre at least.",
            Reason.NoCalibration => $"What was measured of {V(0)} is no error that a machine has. Take it out of the file and measure the machine once more at Print.",
            Reason.FilledTooLong => $"With the values of {V(0)} the words would have more than {V(1)} characters, as many as a text has. Shorten the words or the values.",
            Reason.NoHolders => "A machine needs one holder at least.",
            Reason.HolderTakesNothing => $"The holder “{V(0)}” takes no tool. Touch those that fit it, or take it away.",
            Reason.NoFiles => "A machine reads one kind of file at least.",
            Reason.NoSuchTool => $"There is no tool “{V(0)}” in the drawer.",
            Reason.WidthLacks => "A pen or a tip needs the width of its line, a printer that of the strip it leaves unprinted.",
            Reason.ReadsNoMarks => $"{V(0)} reads no marks. Print a plain page to be trimmed by hand, or choose another machine at Set-out.",
            Reason.NoMarksThere => "There is no page with marks on it. Choose marks for a printed stock and lay its pieces first.",
            Reason.MarksAreClose => "The marks cannot come any closer: pieces lie near all of the page.",
            Reason.MarksInMargin => $"There the printer prints nothing: it leaves {V(0)} along every edge. Set the marks farther in.",
            Reason.NothingHangsOver => $"No printed area hangs over the edge of {V(0)}.",
            Reason.NotTogether => $"These pieces do not hang together with {V(0)}: their outlines must overlap to become one.",
            Reason.InMarkZone => $"{V(0)}, or its print past the cut, would come nearer than {V(1)} to a registration mark, where the reader needs clear paper.",
            Reason.NothingPrinted => "Nothing is printed yet. Print a colour, a border, words or a picture on a piece first.",

            Reason.NothingPicked => "Nothing is picked. Touch a piece first.",
            Reason.OnePieceOnly => "This is done to one piece at a time. Pick one.",
            Reason.LinesOnly => "Pick the lines first: touch one on the light table, or a kind of line in the tray.",
            Reason.OneLineOnly => "This is done to one line at a time. Pick one line.",
            Reason.AlignTwo => "Lining up with each other takes two or more. Pick another, or line up with the card.",
            Reason.AlignLinesOnly => "Only lines are lined up with their piece. Pick lines, or line up with the card or each other.",
            Reason.CentreLinesOnly => "Only lines are centred on their piece. Pick lines, or centre on the card.",
            Reason.SpreadThree => "Spreading evenly takes three or more. Pick another.",
            Reason.MergeTwo => "Merging takes two or more pieces. Pick another.",
            Reason.IslandsOnly => "Nothing is picked. Touch a loose island first.",
            Reason.Locked => $"{V(0)} is locked. Unlock it to change its shape or place.",
            Reason.NotTooShort => "None of these scores stops a little short of where it may run; there is nothing to draw out.",
            Reason.NoBase => "There is no base piece yet; make it at Set-out.",
            Reason.BaseThere => "The base piece is there already. Where the card has changed, it can be changed to fit.",
            Reason.FollowsEdge => "That follows the edge of its piece, or from words. Make lines of it first.",
            Reason.PlainAlready => "Those lines follow nothing; they are plain already.",
            Reason.OutlineNotRemoved => "Without its outline there is no piece. Take the whole piece out instead.",
            Reason.OutlineNotGiven => "An outline stays with its piece. To make a piece an opening of another, merge them.",
            Reason.OutlineNotCopied => "An outline is copied by copying its piece. Pick other lines, or the whole piece.",
            Reason.OutlineIsEdge => "An outline is the edge itself.",

            Reason.TooIntricate => $"{(Has(0) ? V(0) : "A piece")} is too large or too intricate for that. Make it smaller, or take out some of its lines.",
            Reason.ClosedLinesOnly => "Only closed lines other than the outline can become pieces of their own.",
            Reason.PictureGone => "This picture is not there any more. Choose another at the left, or bring it in again.",
            Reason.NoPictureOn => $"There is no picture on {V(0)}. Lay one on it at Art, under On a piece.",
            Reason.PictureLies => $"The picture lies on {V(0)}. Take it off there first, then take it out.",
            Reason.PicturesFull => $"A project has up to {V(0)} pictures. Take one out that lies on no piece.",
            Reason.PictureStepsFull => $"Up to {V(0)} steps are kept of a picture. Take some back, or bring it in as it is now.",
            Reason.PictureDots => $"The picture would have {V(0)} × {V(1)} dots then, which is more than can be held. Crop it first, or take other steps back.",
            Reason.PictureCropped => "Nothing would be left of the picture. Draw the part that is to stay a little larger.",
            Reason.PictureCorners => "These four corners are no page. Put one at each corner, and let the edges not cross.",
            Reason.PictureBrush => "This stroke cannot be painted. Draw a shorter one, or choose another size for the brush.",
            Reason.NothingTraced => "Nothing was found to trace. Move the slider for light and dark, leave out fewer specks, or take another way to trace.",
            Reason.TracedTooMany => $"That would be {V(0)} pieces; up to {V(1)} are made at once. Leave out larger specks, take fewer colours, or crop the picture.",
            Reason.NotHeld => "No ties are left in what is picked. Pick one cut, leave ties in it under Holding bridges, then move them.",
            Reason.NoOpenings => $"{V(0)} has no openings. Pick a closed line on it to make that a piece of its own.",
            Reason.NotInside => $"{V(0)} does not lie inside {V(1)}. A piece has one outline, so only what lies inside it can be merged into it.",
            Reason.OnThatPieceAlready => "The lines are on that piece already.",
            Reason.NotAnEdge => "Reflect across the left, right, top or bottom edge.",
            Reason.NoExtent => "What has no extent one way cannot be given one by scaling.",
            Reason.NoAreaLeft => "That would leave no area inside the line.",
            Reason.ClosedAlready => "That line is closed already, or has no end to close.",
            Reason.TooFarOff => "That place is too far off the card.",
            Reason.NodeNeeded => "The line needs the nodes it has left. To take the whole line away, pick it and delete it.",
            Reason.FillTooFine => "Strokes that close together would be too many to run. Give a larger distance.",
            Reason.NoWidth => "A shape has a width and a height above 0.",
            Reason.NoWords => "Nothing is written. Type the words.",
            Reason.OneTextOnly => "Pick one text, and nothing else.",
            Reason.FaceShapesNothing => "The face makes nothing of these words that could be used. Write fewer of them, or choose another face.",
            Reason.LettersTooFine => $"The letters of this face have {V(0)} segments in these words, and a text may have {V(1)}. Choose a plainer face, or put the words into several texts.",
            Reason.NoSuchFace => $"There is no face “{V(0)}” here. Choose another.",
            Reason.NoEdgeLine => $"So far inside its edge nothing of {V(0)} is left. Take less.",

            Reason.WordsAreAPiece => "These words are a piece of their own; that is done to words on a piece.",
            Reason.SingleLineFace => "A single-line face has no paper to cut out. Choose a face with outlines first.",
            Reason.NoWordPiece => "That piece is not cut of words. Pick words, and cut them out as a piece first.",
            Reason.RowTooLong => $"Row {V(0)} has {V(1)} values, and there are {V(2)} fields.",
            Reason.NoListHere => "That row is no longer in the list. Reload the page to see what is there now.",
            Reason.FollowsNothing => "That follows nothing; it stands for itself already.",
            Reason.CombineTwo => "This takes two or more pieces. Pick another.",
            Reason.NothingInCommon => $"Nothing would be left: {V(0)} and {V(1)} do not lie so that there is. Move one of them, or choose the other way.",
            Reason.LineOpen => $"{V(0)} is open by {V(1)}, so that it has no inside. Close it first: by “Close it” or “join ends”.",
            Reason.PartsNothing => $"That line does not part {V(0)}. Draw it from edge to edge.",
            Reason.NoEndsNear => $"No two ends lie within {V(0)} of each other. Give a larger distance.",

            Reason.NotAColour => "A colour is written as # and six digits, such as #7B4BA8.",
            Reason.NoInk => "Only drawn and foiled lines have a colour of their own.",

            Reason.VariantsFull => $"{V(0)} variants are kept already. Let one go first.",
            Reason.NothingToKeep => "There are no pieces to keep aside yet.",

            Reason.StrongAlready => Has(0) ? $"{V(0)} needs nothing: it is that wide everywhere, or a kept gap leaves no room." : "None of those pieces needs it.",
            Reason.CutIntoParts => $"{V(0)} is cut into {V(1)} parts by its own lines. Mend that first.",
            Reason.NothingSmall => Has(0) ? $"{V(0)} has nothing that small." : "None of those pieces has anything that small.",
            Reason.NothingLeft => $"Nothing is left of {V(0)} so far inward. Take less.",
            Reason.NoRoomForBridge => $"There is no room for a bridge of {V(0)} at {V(1)}. Take a narrower one.",
            Reason.BridgeTooShort => $"The bridges to {V(0)} do not reach {V(1)}. Try another width.",
            Reason.NotAnIsland => $"{V(0)} does not lie loose in an opening of another piece of its stock.",

            Reason.NoPieces => "There are no pieces yet. Bring in art first.",
            Reason.TooManyCopies => $"That is {V(0)} pieces; at most {V(1)} are placed at once. Make fewer cards at a time.",
            Reason.CannotNest => $"The pieces cannot be put on sheets: {Nesting((NestReason)values[0])}.",
            Reason.SheetsStale => "The pieces have changed since they were put on sheets. Put them on sheets again first.",
            Reason.SheetCut => $"Sheet {V(0)} is cut, and its rest is kept. Set how many cards are still wanted, and put the pieces on sheets again.",
            Reason.RestKept => $"The rest of sheet {V(0)} is in the drawer already: {V(1)}.",
            Reason.NothingWorthKeeping => "Nothing of this sheet is worth keeping: what is left is narrower than two fingers.",
            Reason.OtherStock => "Pieces stay on sheets of their stock. Give the piece another stock at Pieces.",
            Reason.NoCopies => "Choose pieces on the sheet first.",
            Reason.SameSheet => "Choose another sheet of the same stock.",
            Reason.BeyondSheets => "That is farther than any sheet reaches.",
            Reason.NoFurtherSheet => $"There is no further “{V(0)}” of {V(1)} at hand.",
            Reason.NoRoomOnSheet => $"There is no room on {(values[0] is 0 ? "such a sheet" : $"sheet {V(0)}")} for {(values[1] is 1 ? V(2) : $"these {V(1)} pieces")}.",

            Reason.OverBorder => $"{V(0)} would reach {V(1)} over the border.",
            Reason.NearOffcutEdge => $"{V(0)} would lie {V(1)} from the edge of the offcut; {V(2)} are kept.",
            Reason.OffOffcut => $"{V(0)} would leave the paper of the offcut.",
            Reason.TooNear => $"{V(0)} would lie {V(1)} from {V(2)}; {V(3)} are kept.",
            Reason.AgainstDirection => $"{V(0)} may not be turned like that: its paper has a direction.",
            Reason.LiesOnOther => $"{V(0)} would lie on {V(1)}.",
            Reason.NothingSettled => "There is no settled layout to take. Let the pieces settle first.",
            Reason.SettledStale => "The pieces, the machine or the spacing have changed since this layout settled. Let them settle again.",
            Reason.SettledPins => "Pieces were pinned or moved by hand since this layout settled, and do not lie so in it. Let the others settle again.",
            Reason.SettledSheets => "The sheets in the drawer have changed since this layout settled. Let the pieces settle again.",

            Reason.NothingToUndo => "There is nothing left to undo.",
            Reason.NothingToRedo => "There is nothing to do again.",

            Reason.ArtNotRead => "The art must be read again before it can be added.",
            Reason.NothingInArt => "Nothing in this file can be cut, folded or drawn: it has no lines. If it holds text or a picture, turn that into outlines first.",
            Reason.NoMotifs => "No motif is chosen yet. Touch those that you want, then bring them in.",

            Reason.CommandEmpty => "Type what to do, such as size 40 30 or turn 90.",
            Reason.CommandTooLong => $"A command has at most {V(0)} characters.",
            Reason.NoSuchCommand => $"“{V(0)}” is no command.{(Has(1) ? $" It may mean: {V(1)}." : " Nothing here is called nearly like that; clear the line to see what there is.")}",
            Reason.CommandLacks => $"This lacks {V(0)}. Write: {V(1)}",
            Reason.CommandTooMuch => $"“{V(0)}” is too much. Write: {V(1)}",
            Reason.QuoteOpen => $"A double quote is not closed. Write: {V(0)}",
            Reason.NotANumber => $"“{V(0)}” is no number.{Write(1)}",
            Reason.NotAWholeNumber => $"“{V(0)}” is no whole number.{Write(1)}",
            Reason.NotALength => $"“{V(0)}” is not a length that can be understood. Write a number with mm or in, such as 148 mm or 8.5in/2.",
            Reason.NotOneOf => $"“{V(0)}” is not one of {V(1)}.{Write(2)}",
            Reason.NameFitsSeveral => $"“{V(1)}” fits {V(2)}. Write more of the name.",
            Reason.NoSuchName => $"There is no {V(0)} “{V(1)}”.{(Has(2) ? $" There are {V(2)}." : "")}",
            _ => throw new ArgumentOutOfRangeException(nameof(refused), refused.Reason, "No words for that reason."),
        };

        string Write(int i) => Has(i) ? $" Write: {V(i)}" : "";
    }

    /// <summary>What is wrong with a text that should be a length.</summary>
    public static string For(LengthFault fault, string? text) => fault switch
    {
        LengthFault.Empty => "Give a length, such as 148 mm or 8.5in/2.",
        LengthFault.TooLong => "That is too long for a length.",
        LengthFault.EitherComma => $"“{text?.Trim()}” may be thousands or a fraction. Write {text?.Trim().Replace(",", "", StringComparison.Ordinal)} or {text?.Trim().Replace(',', '.')}.",
        LengthFault.DividesByZero => "That divides by zero.",
        _ => $"“{text?.Trim()}” is not a length that can be understood. Write a number with mm or in, such as 148 mm or 8.5in/2.",
    };

    private static string Shown(object? value, Units units) => value switch
    {
        Mm mm => LimitText(mm.Value, units),
        null => "",
        IEnumerable<string> names => string.Join(", ", names),
        long or int => string.Create(CultureInfo.InvariantCulture, $"{value:N0}"),
        IFormattable number => number.ToString("0.##", CultureInfo.InvariantCulture),
        _ => value.ToString() ?? "",
    };

    /// <summary>Limits and distances are shown without digits that say nothing.</summary>
    private static string LimitText(double mm, Units units) => units.AreInches()
        ? (mm / Length.MmPerInch).ToString("0.###", CultureInfo.InvariantCulture) + " in"
        : mm.ToString(Math.Abs(mm) < 1 ? "0.##" : "0.#", CultureInfo.InvariantCulture) + " mm";

    private static string Nesting(NestReason reason) => reason switch
    {
        NestReason.Spacing => "their spacing is out of reach",
        NestReason.SheetSize => "a sheet in the drawer has no size that can be worked with",
        NestReason.SheetCount => "a sheet in the drawer has a count below 0",
        NestReason.SameSheetId => "two sheets in the drawer have the same name",
        NestReason.NoArea => "the outline of a piece has no area",
        NestReason.PieceTooLarge => "a piece is larger than any sheet can be",
        NestReason.TooManyCopies => "they are too many for one go",
        NestReason.PinNotRigid or NestReason.PinWithoutCopy or NestReason.PinWithoutSheet => "a pinned piece does not lie on a sheet as it should",
        _ => "something about them does not hold together",
    };
}
