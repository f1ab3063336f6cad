using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Building;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Web.Desk;
using Falzkunst.Web.LightTable;
using Falzkunst.Web.Pictures;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Project;

/// <summary>Layers, frames and stacks made of pieces; pieces joined and parted.</summary>
public sealed class BuildModel(ProjectDesk desk) : BenchPage(desk)
{
    public override Station Station => Station.Build;
    public override string Modes => "stacked spread";
    public override string EmptyTable => "Here layers, frames and stacks are made of pieces, and pieces are joined. Bring in art first, or draw a shape at Pieces.";
    public override bool PicksOnTable => true;

    /// <summary>What stacks are looked at with.</summary>
    public BuildNumbers Numbers { get; private set; } = new();

    protected override Scene BuildScene() => SceneBuilder.Pieces(On);

    protected override void PickAfter(Edit edit, Core.Projects.Project before)
    {
        if (PickBuilt(edit, before) || edit is not (TakeApart or DuplicatePicked)) return;
        if (Value.Design.Pieces.Where(p => before.Design.Find(p.Id) is null).Select(p => p.Id).ToImmutableArray() is { IsEmpty: false } made) Pick(Picked.OfPieces(made));
    }

    /// <summary>The one piece that is picked, and no lines of it; null for anything else.</summary>
    public Piece? Only => Picked is { IsLines: false, Pieces: [var only] } ? Value.Design.Find(only) : null;

    /// <summary>How far the picked lines are from being closed, mm; null where they are, or cannot be.</summary>
    public double? GapToClose => Picked is { IsLines: true, PieceIds: [_] } ? LineEnds.GapToClose(PickedLines.Select(l => l.Item).OfType<Line>()) : null;

    /// <summary>Several pieces are picked.</summary>
    public bool HasSeveral => Picked.Pieces.Length > 1;

    /// <summary>Other numbers to look at stacks with; nothing is made.</summary>
    public Task<IActionResult> OnPostNumbersAsync(string? rim, string? close, string? bridge, string? outline, string? count, string? step, string? backing, string? glue, CancellationToken stop)
    {
        double Read(string field, string? text, double now) => text is null ? now : ReadLength(field, text) ?? now;
        Numbers = Numbers with
        {
            Outline = Value.Design.Find(outline ?? "") is not null ? outline : null,
            Rim = Read("rim", rim, Numbers.Rim),
            Close = Read("close", close, Numbers.Close),
            Bridge = Read("bridge", bridge, Numbers.Bridge),
            Count = int.TryParse(count, NumberStyles.None, CultureInfo.InvariantCulture, out var n) && n is >= 1 and <= FrameStackOptions.Most ? n : Numbers.Count,
            Step = Read("step", step, Numbers.Step),
            Backing = Read("backing", backing, Numbers.Backing),
            Glue = glue is null ? Numbers.Glue : glue.Trim().Length == 0 ? null : ReadLength("glue", glue) ?? Numbers.Glue,
        };
        return RegionsAsync(stop);
    }

    /// <summary>The picked papers as a stack, loose parts bridged and handed down.</summary>
    public IReadOnlyList<BuildPreview> ColourPreviews => BuildPreview.Colours(new BenchContext(Value, Picked, On.Drawer), new ColoursAction(Numbers.Rim, Numbers.Close, Bridge: Numbers.Bridge, Outline: Outlined), On.Drawer.ColourOf);

    /// <summary>Id of the piece that is the outline of a stack.</summary>
    public string? Outlined => Numbers.Outline is { } chosen && Picked.Pieces.Contains(chosen) ? chosen : Value.Design.Pieces.FirstOrDefault(p => Picked.Pieces.Contains(p.Id))?.Id;

    /// <summary>The picked piece as frames.</summary>
    public BuildPreview FramesPreview => BuildPreview.Made("frames", new FramesAction(Numbers.Count, Numbers.Step, Numbers.Backing, Only is { } piece ? LikelyStock(piece) : null, Numbers.Glue), new BenchContext(Value, Picked, On.Drawer), ColourOf);

    /// <summary>Layers under the picked piece by steps of several sizes.</summary>
    public IEnumerable<BuildPreview> ShadowPreviews => new[] { (2, 2.0), (2, 3.0), (3, 3.0), (3, 5.0) }.Select(s =>
        BuildPreview.Made($"{s.Item1} of {Core.Measures.Length.Show(s.Item2, Units)}", new ShadowAction(s.Item1, s.Item2, ShadowStocks), new BenchContext(Value, Picked, On.Drawer), ColourOf));

    /// <summary>Stocks for layers, the likeliest first, and the piece's own in between.</summary>
    private string[]? ShadowStocks => Only is { } piece && LikelyStock(piece) is { } likely ? [likely, piece.Stock] : null;
}
