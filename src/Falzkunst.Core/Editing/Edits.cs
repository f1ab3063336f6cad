using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Building;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting;
using Falzkunst.Core.Nesting.Papers;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Editing;

/// <summary>Applies edits: pure functions from one project to the next.</summary>
public static class Edits
{
    public const int MostCards = 500;
    public const int MostOfAPiece = 200;

    /// <summary>The project after an edit.</summary>
    /// <param name="project">The project before it; it is not changed.</param>
    /// <param name="edit">The edit.</param>
    /// <param name="drawer">Stocks and machines at hand.</param>
    /// <exception cref="EditRefused">The edit does not fit the project, with the reason.</exception>
    public static Project Apply(Project project, Edit edit, Drawer drawer)
    {
        try
        {
            var after = Applied(project, edit, drawer);
            return Following.Settle(project.Design, after.Design) is var design && !ReferenceEquals(design, after.Design) ? after with { Design = design } : after;
        }
        catch (BudgetSpent)
        {
            // Lines that cross more often than anybody could mend, or more of them than can be worked with.
            throw new EditRefused(Reason.TooIntricate);
        }
    }

    private static Project Applied(Project project, Edit edit, Drawer drawer) => edit switch
    {
        ChangeSetOut e => ChangeSetOut(project, e.SetOut, drawer),
        EditsTogether e => e.Edits.IsDefaultOrEmpty ? throw new EditRefused(Reason.NothingPicked) : e.Edits.Aggregate(project, (now, one) => Apply(now, one, drawer)),
        BringInArt e => project with { Design = Add(project.Design, e.Pieces, e.Art) },
        BringInPieces e => project with { Design = Add(project.Design, e.Pieces, null) },
        SetOperation e => project with { Design = Refolding.Follow(project.Design, Working.Each(project.Design, e.Lines, l => l.With(e.Operation)), isByRule: false) },
        SetOperationOfLook e => project with { Design = Refolding.Follow(project.Design, WithOperationOfLook(project.Design, e), isByRule: false) },
        CloseOutline e => project with { Design = WithClosed(project.Design, e) },
        SetStock e => project with { Design = WithStock(project.Design, e, drawer) },
        SetQuantity e => e.Quantity is >= 0 and <= MostOfAPiece
            ? project with { Design = project.Design.With(e.Piece, p => p with { Quantity = e.Quantity }) }
            : throw EditRefused.Range(Measure.Quantity, 0, MostOfAPiece, "quantity"),
        RenamePiece e => string.IsNullOrWhiteSpace(e.Name) || e.Name.Length > NameLimits.Piece
            ? throw EditRefused.Range(Measure.NameLength, 1, NameLimits.Piece, "name")
            : project with { Design = project.Design.With(e.Piece, p => p with { Name = e.Name.Trim() }) },
        RemovePieces e => project with { Design = Without(project.Design, e) },
        PutOnSheets e => OnSheets(project, e, drawer),
        TakeSettled e => Placing.Take(project, e, drawer),
        PinPlacements e => Placing.Pin(project, e),
        MovePlacements e => Placing.Move(project, e),
        SendPlacements e => Placing.Send(project, e, drawer),
        KeepRest e => Placing.Keep(project, e),
        SetAllowedTurns e => Placing.Set(project, e),
        KeepArt => project,
        ChangeLineSettings e => project with { Design = Working.With(project.Design, e) },
        DrawOutScores e => project with { Design = DrawOut(project, e) },
        SetInk e => project with { Design = Working.With(project.Design, e) },
        UseTool e => project with { Design = Working.With(project.Design, e) },
        AddText e => project with { Design = Writing.With(project.Design, e, drawer.Faces) },
        ChangeText e => project with { Design = Writing.With(project.Design, e, drawer.Faces) },
        AddEdgeLine e => project with { Design = Reworking.AlongEdge(project.Design, e) },
        MakePlain e => project with { Design = Reworking.MakePlain(project.Design, e.Items) },
        ApplyRules e => project with { Design = Refolding.Follow(project.Design, Working.With(project.Design, e), isByRule: true) },
        ScaleArt e => ArtScale.Apply(project, e),
        BringInLines e => project with { Design = project.Design.With(e.Piece, p => Arranging.Unlocked(p).Plus(e.Lines.Select(l => (l with { Art = e.Art }).Under(p.Place.Inverse())))) },
        MakeBase e => project with { Design = BasePiece.Make(project, e, drawer) },
        FitBase e => project with { Design = BasePiece.Fit(project, e) },
        DrawShape e => project with { Design = Reworking.Draw(project.Design, e.Piece, e.Shape, e.Operation, drawer.StockFor(null)) },
        BendLine e => project with { Design = Reworking.Bend(project.Design, e.Piece, e.Line, e.Change) },
        RemoveLines e => project with { Design = Reworking.Remove(project.Design, e.Lines) },
        RemoveLoose e => project with { Design = Reworking.RemoveLoose(project.Design, e.Lines) },
        TakeApart e => project with { Design = Reworking.TakeApart(project.Design, e.Piece, e.Lines, e.KeepOpenings) },
        MergePieces e => project with { Design = Reworking.Merge(project.Design, e.Pieces) },
        GiveLines e => project with { Design = Reworking.Give(project.Design, e.From, e.Lines, e.To) },
        EndAtEdge e => project with { Design = Reworking.EndAtEdge(project.Design, e.Piece, e.Line, e.ShareOut) },
        OrderPiece e => project with { Design = Ordered(project.Design, e) },
        HidePieces e => project with { Design = e.Pieces.Aggregate(project.Design, (d, id) => d.With(id, p => p with { Hidden = e.Hidden })) },
        LockPieces e => project with { Design = e.Pieces.Aggregate(project.Design, (d, id) => d.With(id, p => p with { Locked = e.Locked })) },
        LockSize e => project with { Design = Working.EachLine(project.Design, e.Lines, l => l with { SizeLocked = e.Locked }) },
        ThickenPieces e => project with { Design = Detailing.Thicken(project.Design, e.Pieces, e.How) },
        KeepThickened e => Variants.Keep(project, e.Piece, e.Name, Detailing.Thickened(project.Design, e.Piece, e.How).Piece),
        MakeBorders e => project with { Design = Mats.Make(project.Design, e.Piece, e.Borders, drawer) },
        CombinePieces e => project with { Design = Combining.Combine(project.Design, e.How, e.Pieces, e.Keeper, e.Others).Design },
        CombineLines e => project with { Design = Combining.WithLines(project.Design, e.How, e.Piece, e.Lines).Design },
        PartPiece e => project with { Design = Combining.Part(project.Design, e.Piece, e.Line).Design },
        CropPieces e => project with { Design = Combining.Crop(project.Design, e.Pieces, e.Shape).Design },
        GrowOpenings e => project with { Design = OpeningSizes.Grow(project.Design, e.Piece, e.Lines, e.ByMm) },
        StackColours e => project with { Design = ColourLayers.Make(project.Design, e.Outline, e.Pieces, e.How) },
        StackFrames e => project with { Design = FrameStacks.Make(project.Design, e.Piece, e.How, drawer) },
        JoinEnds e => project with { Design = LineEnds.Join(project.Design, e.Lines, e.MostMm) },
        ChangeBorder e => project with { Design = Mats.Change(project.Design, e.Piece, e.Border) },
        MakePiecesPlain e => project with { Design = Mats.MakePlain(project.Design, e.Pieces) },
        WordsAsPiece e => project with { Design = WordPieces.Make(project.Design, e.Piece, e.Text, e.Stock, e.Tie, e.TieMm, drawer) },
        TieWords e => project with { Design = WordPieces.Tie(project.Design, e.Piece, e.Tie, e.TieMm) },
        SetNameList e => project with { Design = Writing.WithList(project.Design, e, drawer.Faces) },
        TakeSmallThings e => project with { Design = Detailing.TakeSmall(project.Design, e.Pieces, e.SizeMm, e.Keys) },
        BridgeIslands e => project with { Design = Detailing.Bridge(project.Design, e.Pieces, e.How) },
        SetLeastWidth e => project with { SetOut = LeastWidth.Set(project.SetOut, drawer.Stock(e.Stock), e.Mm) },
        BringInPicture e => project with { Design = Picturing.BringIn(project.Design, e) },
        AddPictureStep e => project with { Design = Picturing.Step(project.Design, e) },
        DropPictureStep e => project with { Design = Picturing.Drop(project.Design, e) },
        ResizePicture e => project with { Design = Picturing.Size(project.Design, e) },
        RemovePicture e => project with { Design = Picturing.Remove(project.Design, e) },
        TakeTrace e => project with { Design = Picturing.Trace(project, e, drawer) },
        LayPicture e => project with { Design = Picturing.Lay(project.Design, e) },
        PlacePicture e => project with { Design = Picturing.Place(project.Design, e) },
        TakeOffPictures e => project with { Design = Picturing.TakeOff(project.Design, e) },
        ChangeRim e => project with { Design = TracedPieces.ChangeRim(project.Design, e.Piece, e.BorderMm) },
        ChangePrinting e => Pages.Change(project, e, drawer),
        LayPrinted e => Pages.Lay(project, e, drawer),
        DrawMarks e => Pages.Draw(project, e, drawer),
        KeepReading e => Pages.Keep(project, e),
        PrintLines e => project with { Design = Working.With(project.Design, e) },
        PrintFills e => project with { Design = Printed.Fill(project.Design, e) },
        PrintBorder e => project with { Design = Printed.Border(project.Design, e) },
        CutOnlyOutside e => project with { Design = PrintedAsOne.Make(project.Design, e.Pieces, drawer) },
        FollowPrint e => project with { Design = PrintedAsOne.Follow(project.Design, e.Piece) },
        TurnPicture e => project with { Design = Printed.Turn(project.Design, e) },
        CoverWithPicture e => project with { Design = Printed.Cover(project.Design, e) },
        KeepVariant e => Variants.Keep(project, e.Piece, e.Name),
        TakeVariant e => Variants.Take(project, e.Variant),
        DropVariant e => Variants.Drop(project, e.Variant),
        PickedEdit e => project with { Design = Arranged(project, e) },
        _ => throw new ArgumentOutOfRangeException(nameof(edit), edit.GetType().Name, "Unknown edit."),
    };

    private static Design Arranged(Project project, PickedEdit edit) => edit switch
    {
        MovePicked e => Arranging.Move(project.Design, e.What, e.Dx, e.Dy),
        ResizePicked e => Arranging.Resize(project.Design, e.What, e.Width, e.Height),
        TurnPicked e => Arranging.Turn(project.Design, e.What, e.Degrees),
        MirrorPicked e => Arranging.Mirror(project.Design, e.What, e.LeftRight),
        DuplicatePicked e => Copying.Duplicate(project.Design, e.What),
        AlignPicked e => Aligning.Align(project, e.What, e.Edge, e.To),
        DistributePicked e => Aligning.Distribute(project.Design, e.What, e.Across),
        RepeatPicked e => Copying.Repeat(project.Design, e.What, e.Rows, e.Columns, e.GapX, e.GapY),
        RingPicked e => Copying.Ring(project.Design, e.What, e.Count, e.Centre, e.TurnEach),
        ReflectPicked e => Copying.Reflect(project.Design, e.What, e.Edge),
        _ => throw new ArgumentOutOfRangeException(nameof(edit), edit.GetType().Name, "Unknown edit."),
    };

    private static Design Ordered(Design design, OrderPiece edit)
    {
        var piece = design.Require(edit.Piece);
        if (edit.Layer < 1 || edit.Layer > design.Pieces.Length) throw EditRefused.Range(Measure.Layer, 1, design.Pieces.Length, "layer");
        return design with { Pieces = design.Pieces.Remove(piece).Insert(edit.Layer - 1, piece) };
    }

    private static Project ChangeSetOut(Project project, SetOut setOut, Drawer drawer)
    {
        drawer.Machine(setOut.Machine);
        if (setOut.Cards is < 1 or > MostCards) throw EditRefused.Range(Measure.Cards, 1, MostCards, "cards");
        if (!(setOut.SpacingMm is >= 0 and <= SetOut.MostSpacingMm)) throw EditRefused.RangeMm(Measure.Spacing, 0, SetOut.MostSpacingMm, "spacing");
        if (!(setOut.ScoreClearanceMm is >= 0 and <= SetOut.MostClearanceMm)) throw EditRefused.RangeMm(Measure.ScoreClearance, 0, SetOut.MostClearanceMm, "clearance");
        foreach (var (mm, field) in new[] { (setOut.Card.FoldedWidth, "width"), (setOut.Card.FoldedHeight, "height") })
        {
            if (!(mm is >= CardFormat.LeastMm and <= CardFormat.MostMm)) throw EditRefused.RangeMm(Measure.CardSize, CardFormat.LeastMm, CardFormat.MostMm, field);
        }
        return project with { SetOut = setOut };
    }

    private static Design Add(Design design, Design? pieces, Guid? art)
    {
        var added = pieces ?? throw new EditRefused(Reason.ArtNotRead);
        var names = design.Pieces.Select(p => p.Name).ToHashSet();
        var named = added.Pieces.Select(p => p.EachWorked(i => i is Line l ? l with { Art = art } : i) with { Name = names.Contains(p.Name) ? PieceNaming.Free(p.Name, names) : p.Name, Art = art });
        // They were numbered from the design's own number on when they were made.
        var all = (design with { Pieces = [.. design.Pieces, .. named], Findings = [.. design.Findings, .. added.Findings], NextPiece = added.NextPiece }).PlusLoose(added.Loose.Select(l => l with { Art = art }));
        // What lies on no piece of its own file lies on one that was there before, such as the base under it.
        var came = all.Loose.Skip(design.Loose.Length).Select(l => l.Id).ToHashSet();
        return came.Count == 0 ? all : LooseLines.GiveToPiecesUnder(all, l => came.Contains(l.Id), design.Pieces.Select(p => p.Id).ToHashSet());
    }

    private static Design DrawOut(Project project, DrawOutScores edit)
    {
        var design = project.Design;
        foreach (var some in edit.Lines)
        {
            design = design.With(some.Piece, piece =>
            {
                Arranging.Unlocked(piece).RequireWorked(some.Ids);
                var longer = ScoreEnds.DrawnOut(piece, project.SetOut.ScoreClearanceMm);
                return piece.EachLine(some.Ids, l => longer.TryGetValue(l.Id, out var path) ? l with { Path = path } : l);
            });
        }
        return ReferenceEquals(design, project.Design) || design.Pieces.SequenceEqual(project.Design.Pieces) ? throw new EditRefused(Reason.NotTooShort) : design;
    }

    private static Design WithOperationOfLook(Design design, SetOperationOfLook edit)
    {
        if (!design.Pieces.Any(p => p.Lines.Any(l => l.Look == edit.Look))) throw new EditRefused(Reason.LookGone);
        return design with
        {
            Pieces = [.. design.Pieces.Select(p => p.EachWorked(l => l.SeenAs == edit.Look && l.Operation != edit.Operation ? l.With(edit.Operation) : l))],
        };
    }

    private static Design WithClosed(Design design, CloseOutline edit) => design.With(edit.Piece, piece =>
    {
        var line = piece.Require([edit.Line])[0];
        var path = line.Path;
        if (path.IsClosed || path.Segments.Length < 2) throw new EditRefused(Reason.ClosedAlready);
        var closed = new Path(path.Start, path.Segments, closed: true);
        return piece.EachLine([edit.Line], l => l with { Path = closed, Look = l.Look with { Closed = true } });
    });

    private static Design WithStock(Design design, SetStock edit, Drawer drawer)
    {
        drawer.Stock(edit.Stock);
        return edit.Pieces.Aggregate(design, (d, id) => d.With(id, p => p with { Stock = edit.Stock }));
    }

    private static Design Without(Design design, RemovePieces edit)
    {
        if (!edit.Pieces.All(id => design.Find(id) is not null))
            throw new EditRefused(Reason.PieceGone);
        var gone = edit.Pieces.ToHashSet();
        return design with { Pieces = [.. design.Pieces.Where(p => !gone.Contains(p.Id))] };
    }

    private static Project OnSheets(Project project, PutOnSheets edit, Drawer drawer)
    {
        if (project.Design.Pieces.IsEmpty) throw new EditRefused(Reason.NoPieces);
        var spaced = ChangeSetOut(project, project.SetOut with { SpacingMm = edit.SpacingMm }, drawer);
        var copies = spaced.Made.Pieces.Sum(p => (long)p.Quantity) * spaced.SetOut.Cards;
        if (copies > NestRules.MostCopies)
            throw new EditRefused(Reason.TooManyCopies, copies, NestRules.MostCopies);
        return spaced with
        {
            Sheets = Placing.Refusing(() => PaperPlacing.Place(
                spaced.Made, [.. drawer.Stocks.Select(spaced.AsLaid)], drawer.Machine(spaced.SetOut.Machine), spaced.SetOut.SpacingMm, spaced.SetOut.Cards,
                spaced.LayoutFingerprint(), NestEffort.FirstAnswer, SheetLayouts.BatchKey(edit.Batch), spaced.Sheets)),
        };
    }
}
