using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Actions;

/// <summary>What the picked lines are for.</summary>
public sealed record OperationAction(Operation Operation) : BenchAction
{
    public override Edit For(BenchContext c) => new SetOperation(c.Picked.SomeLines(), Operation);
}

/// <summary>The operation of one line for all lines that look like it, on every piece.</summary>
/// <param name="Piece">Id of the piece.</param>
/// <param name="Line">Id of the line.</param>
public sealed record OperationOfLookAction(string Piece, string Line) : BenchAction
{
    public override Edit For(BenchContext c) => c.Design.Require(Piece).Find(Line) is { } model
        ? new SetOperationOfLook(model.Look, model.Operation) : throw new EditRefused(Reason.LinesGone);
}

/// <summary>The picked scores that stop a little short of the edge drawn out to where they may run.</summary>
public sealed record DrawOutAction : BenchAction
{
    public override Edit For(BenchContext c) => new DrawOutScores(c.Picked.SomeLines());
}

/// <summary>Which way the picked scores fold.</summary>
public sealed record FoldAction(FoldDirection Direction) : BenchAction
{
    public override Edit For(BenchContext c) => new ChangeLineSettings(c.Picked.SomeLines(), [LineSettingsPart.Fold], new LineSettings { Fold = Direction });
}

/// <summary>Through the top layer only, or through again.</summary>
public sealed record HalfCutAction(bool On = true) : BenchAction
{
    public override Edit For(BenchContext c) => new ChangeLineSettings(c.Picked.SomeLines(), [LineSettingsPart.HalfCut], new LineSettings { HalfCut = On });
}

/// <summary>With the sheet face down, or face up again.</summary>
public sealed record FromBackAction(bool On = true) : BenchAction
{
    public override Edit For(BenchContext c) => new ChangeLineSettings(c.Picked.SomeLines(), [LineSettingsPart.FromBack], new LineSettings { FromBack = On });
}

/// <summary>No tool runs the lines this time, or one does again.</summary>
public sealed record LeaveOutAction(bool On = true) : BenchAction
{
    public override Edit For(BenchContext c) => new ChangeLineSettings(c.Picked.SomeLines(), [LineSettingsPart.LeftOut], new LineSettings { LeftOut = On });
}

/// <summary>Dash, gap or both of a perforation; null leaves it.</summary>
public sealed record DashAction([InMillimetres] double? Dash = null, [InMillimetres] double? Gap = null) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        ImmutableArray<LineSettingsPart> parts = [.. Dash is null ? [] : new[] { LineSettingsPart.Dash }, .. Gap is null ? [] : new[] { LineSettingsPart.Gap }];
        var usual = PerforationDashes.Usual;
        return new ChangeLineSettings(c.Picked.SomeLines(), parts, new LineSettings { Dashes = new(Dash ?? usual.DashMm, Gap ?? usual.GapMm) });
    }
}

/// <summary>Width of the tip.</summary>
public sealed record TipAction([InMillimetres] double Width) : BenchAction
{
    public override Edit For(BenchContext c) => new ChangeLineSettings(c.Picked.SomeLines(), [LineSettingsPart.Tip], new LineSettings { TipMm = Width });
}

/// <summary>Colour of pen or foil, #rrggbb.</summary>
public sealed record ColourAction(string Ink) : BenchAction
{
    public override Edit For(BenchContext c) => new SetInk(c.Picked.SomeLines(), Ink);
}

/// <summary>A pen, foil or tip of the drawer, by its key; lines of one pen run together.</summary>
public sealed record ToolAction(string Tool) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var tool = c.Drawer.Tools.FirstOrDefault(t => t.Key == Tool) ?? throw new EditRefused(Reason.NoSuchTool, Tool) { Field = "tool" };
        return new UseTool(c.Picked.SomeLines(), tool.Name, tool.Colour, tool.WidthMm);
    }
}

/// <summary>How areas are filled: a pattern, a distance, an angle, each alone or together; none of them leaves areas empty.</summary>
/// <param name="Pattern">Null leaves it.</param>
/// <param name="Distance">From stroke to stroke; null leaves it.</param>
/// <param name="Angle">Degrees of parallel strokes; null leaves it.</param>
public sealed record FillAction(FillPattern? Pattern = null, [InMillimetres] double? Distance = null, double? Angle = null) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var isEmpty = this == new FillAction();
        (bool Is, LineSettingsPart Part)[] given =
            [(isEmpty || Pattern is not null, LineSettingsPart.Fill), (Distance is not null, LineSettingsPart.FillDistance), (Angle is not null, LineSettingsPart.FillAngle)];
        var to = isEmpty ? null : new AreaFill(Pattern ?? FillPattern.Parallel, Distance, Angle ?? AreaFill.UsualAngleDegrees);
        return new ChangeLineSettings(c.Picked.SomeLines(), [.. given.Where(g => g.Is).Select(g => g.Part)], new LineSettings { Fill = to });
    }
}

/// <summary>Settings that differ from the stock's; what is null stays as it is.</summary>
public sealed record SettingsAction(
    int? Force = null, double? Speed = null, [InMillimetres] double? BladeOut = null, int? Heat = null, int? Times = null) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        (bool Is, LineSettingsPart Part)[] given =
        [
            (Force is not null, LineSettingsPart.Force), (Speed is not null, LineSettingsPart.Speed), (BladeOut is not null, LineSettingsPart.BladeOut),
            (Heat is not null, LineSettingsPart.Temperature), (Times is not null, LineSettingsPart.Times),
        ];
        return new ChangeLineSettings(
            c.Picked.SomeLines(), [.. given.Where(g => g.Is).Select(g => g.Part)],
            new LineSettings { Tool = new ToolSettingsChange(Force, Speed, BladeOut, Heat, Times) });
    }
}

/// <summary>All settings as the stock has them.</summary>
public sealed record StockSettingsAction : BenchAction
{
    public override Edit For(BenchContext c) => new ChangeLineSettings(
        c.Picked.SomeLines(), [LineSettingsPart.Force, LineSettingsPart.Speed, LineSettingsPart.BladeOut, LineSettingsPart.Temperature, LineSettingsPart.Times], LineSettings.Plain);
}

/// <summary>The picked lines keep their size when their piece is scaled, or no longer.</summary>
public sealed record LockSizeAction(bool On = true) : BenchAction
{
    public override Edit For(BenchContext c) => new LockSize(c.Picked.SomeLines(), On);
}

/// <summary>An open line closed by a straight way.</summary>
public sealed record CloseAction : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var (piece, line) = c.Picked.OnlyLine();
        return new CloseOutline(piece, line);
    }
}

/// <summary>A line ended at the edge of its piece; what lies past it is given to the pieces under it, or to none.</summary>
public sealed record TrimAction(bool ShareOut = false) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var (piece, line) = c.Picked.OnlyLine();
        return new EndAtEdge(piece, line, ShareOut);
    }
}

/// <summary>A line along the edge of the picked piece, at a distance inside it, which follows its outline.</summary>
public sealed record EdgeLineAction([InMillimetres] double Inset, Operation Operation = Operation.Draw, bool Sharp = false) : BenchAction
{
    public override Edit For(BenchContext c) => new AddEdgeLine(c.Picked.OnlyPiece(), Inset, Sharp ? Corners.Sharp : Corners.Round, Operation);
}

/// <summary>Ties that cuts leave, on the picked cut lines or on the outlines of the picked pieces; a count of 0 cuts all round.</summary>
/// <param name="Count">How many along each line.</param>
/// <param name="Width">How wide each is.</param>
/// <param name="Shift">How far they are moved along the line from where they show least.</param>
public sealed record HoldAction(int Count = HoldingBridges.UsualCount, [InMillimetres] double Width = HoldingBridges.UsualMm, [InMillimetres] double Shift = 0) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        ImmutableArray<PickedLines> lines = c.Picked.IsLines ? c.Picked.Lines : [.. c.Picked.SomePieces().Select(id => new PickedLines(id, [c.Design.Require(id).Outline.Id]))];
        return new ChangeLineSettings(lines, [LineSettingsPart.Hold], new LineSettings { Hold = Count == 0 ? null : new HoldingBridges(Count, Width, Shift) });
    }
}

/// <summary>One tie of the one picked cut, or of the outline of the one picked piece, is moved along it; the others stay.</summary>
/// <param name="Tie">Its number, from 0, in the order in which they lie by themselves.</param>
public abstract record MoveTieAction(int Tie) : BenchAction, ISketched
{
    /// <summary>Half the length of the bar that shows where a tie would be, mm.</summary>
    private const double BarMm = 2;

    protected abstract HoldingBridges Moved(Piece piece, Line line, HoldingBridges hold);

    public override Edit For(BenchContext c)
    {
        var (piece, line, hold) = Held(c);
        return new ChangeLineSettings([new(piece.Id, [line.Id])], [LineSettingsPart.Hold], new LineSettings { Hold = Moved(piece, line, hold) });
    }

    public IEnumerable<Path> Sketch(BenchContext c)
    {
        var (piece, line, hold) = Held(c);
        var at = piece.Place.Apply(HeldCuts.Ties(line.Path, Moved(piece, line, hold))[Tie]);
        return [Path.Polyline([at - new Point(BarMm, BarMm), at + new Point(BarMm, BarMm)], closed: false), Path.Polyline([at + new Point(-BarMm, BarMm), at + new Point(BarMm, -BarMm)], closed: false)];
    }

    private (Piece Piece, Line Line, HoldingBridges Hold) Held(BenchContext c)
    {
        var (piece, line) = HeldLine.Find(c.Design, c.Picked) ?? throw new EditRefused(Reason.NotHeld);
        var hold = line.Settings!.Hold!;
        return Tie >= 0 && Tie < hold.Count ? (piece, line, hold) : throw EditRefused.Range(Measure.BridgeCount, 1, hold.Count, "tie");
    }
}

/// <summary>A tie goes where its cut runs nearest to a place of the card.</summary>
public sealed record TieToAction(int Tie, [InMillimetres] double X, [InMillimetres] double Y) : MoveTieAction(Tie)
{
    protected override HoldingBridges Moved(Piece piece, Line line, HoldingBridges hold) =>
        HeldCuts.Moved(line.Path, hold, Tie, piece.Place.Inverse().Apply(new Point(X, Y)));
}

/// <summary>A tie goes a distance along its cut, backwards below 0.</summary>
public sealed record TieByAction(int Tie, [InMillimetres] double By) : MoveTieAction(Tie)
{
    protected override HoldingBridges Moved(Piece piece, Line line, HoldingBridges hold) => HeldCuts.Moved(line.Path, hold, Tie, By);
}

/// <summary>What follows from something becomes plain: picked lines, or picked pieces.</summary>
public sealed record MakePlainAction : BenchAction
{
    public override Edit For(BenchContext c)
    {
        if (!c.Picked.IsLines) return new MakePiecesPlain(c.Picked.SomePieces());
        // Words that are their piece's form are made plain with it.
        if (c.Picked.Lines is [{ Ids: [var id] } only] && c.Design.Require(only.Piece) is { Follows: FromWords words } && words.Text == id) return new MakePiecesPlain([only.Piece]);
        return new MakePlain(c.Picked.SomeLines());
    }
}
