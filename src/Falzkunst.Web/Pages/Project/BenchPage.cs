using System.Collections.Immutable;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Commands;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Web.Binding;
using Falzkunst.Web.Desk;
using Falzkunst.Web.LightTable;
using Falzkunst.Web.Pictures;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Project;

/// <summary>A station at which pieces are picked and worked on: forms, buttons, hands and the command line all give it actions.</summary>
public abstract class BenchPage(ProjectDesk desk) : CommandPage(desk)
{
    private Picked? _picked;
    private (Design? In, Picked Picked) _read = (null, Picked.Nothing);

    /// <summary>What a key of this station's page picks.</summary>
    protected virtual Picked ReadPicked(string? key) => PickedKey.Read(key, Value.Design);

    /// <summary>What is picked: the chosen, else the first piece.</summary>
    public Picked Picked
    {
        get
        {
            if (_picked is not null) return _picked;
            if (!ReferenceEquals(_read.In, Value.Design)) _read = (Value.Design, ReadPicked(Selected ?? (HttpMethods.IsGet(Request.Method) ? PickedElsewhere : null)));
            return _read.Picked;
        }
    }

    public override string? ShownKey => PickedKey.Write(Picked, Value.Design);

    /// <summary>Picks something else than what the page has.</summary>
    protected void Pick(Picked picked) => _picked = picked;

    /// <summary>The one piece that the tray is about; null where none or several are picked.</summary>
    public virtual Piece? Shown => Picked.PieceIds is [var only] ? Value.Design.Find(only) : null;

    /// <summary>What is picked of lines, each with its piece.</summary>
    public IReadOnlyList<(Piece Piece, WorkedItem Item)> PickedLines =>
        [.. Picked.Lines.SelectMany(l => Value.Design.Require(l.Piece) is var piece ? l.Ids.Select(id => (piece, piece.Worked(id)!)) : [])];

    /// <summary>The paths of the picked lines, those included that follow from something.</summary>
    public IReadOnlyList<Core.Geometry.Path> PickedPaths => [.. Picked.Lines.SelectMany(l =>
    {
        var ids = l.Ids.ToHashSet();
        return Value.Design.Require(l.Piece).Drawn.Where(d => ids.Contains(d.Id)).Select(d => d.Path);
    })];

    public Stock? StockOf(Piece piece) => On.Drawer.Stocks.FirstOrDefault(s => s.Key == piece.Stock);
    public string ColourOf(Piece piece) => On.Drawer.ColourOf(piece.Stock);

    /// <summary>Does an action to what is picked, or to what the touched button names.</summary>
    /// <param name="action">The action.</param>
    /// <param name="on">Key of what it is done to instead of what is picked.</param>
    /// <param name="stop">Cancels.</param>
    public Task<IActionResult> OnPostDoAsync(BenchAction action, [FromForm(Name = ActionBinder.ActOn)] string? on, CancellationToken stop) =>
        DoAsync(_ => action, ActedOn(on), DoneAsync, stop);

    /// <summary>What a key names; what is picked where there is no key.</summary>
    protected Picked ActedOn(string? key) => string.IsNullOrEmpty(key) ? Picked : PickedKey.Read(key, Value.Design);

    /// <summary>The lines that an action would draw, bend or write, as path data of the card, while the hand is still at it; nothing is done, and what is refused is no line.</summary>
    public IActionResult OnPostSketch(BenchAction action)
    {
        try
        {
            var context = new BenchContext(Value, Picked, On.Drawer);
            var d = action is ISketched sketched ? string.Concat(sketched.Sketch(context).Select(p => PathText.Write(p, ScenePieces.Decimals))) : "";
            // Words that are typed have a caret on the table.
            var carets = action is WordsAction words ? words.Carets(context).SelectMany(p => new[] { p.Top.X, p.Top.Y, p.Foot.X, p.Foot.Y }).Select(n => Math.Round(n, ScenePieces.Decimals)).ToArray() : null;
            return new JsonResult(new { d, carets });
        }
        catch (EditRefused)
        {
            return new JsonResult(new { d = "" });
        }
    }

    /// <summary>Nodes and handles of the one picked line in its piece's coordinates, in the numbers by which actions name them.</summary>
    public IActionResult OnPostNodes() => new JsonResult(Picked.IsLines && Picked.Count == 1 ? SceneNodes.On(Value.Design, Picked) : SceneNodes.None);

    protected override Picked CommandPick => Picked;

    /// <summary>The same lines are picked under their new key, unless the edit made something that is the next to work on.</summary>
    protected override void PickedAfter(Picked picked, Edit edit, Core.Projects.Project before)
    {
        Pick(picked.In(Value.Design));
        PickAfter(edit, before);
    }

    /// <summary>Picks what an edit made, so that the next action is about that.</summary>
    protected abstract void PickAfter(Edit edit, Core.Projects.Project before);

    /// <summary>The edit makes pieces of pieces.</summary>
    protected static bool IsBuilding(Edit edit) => edit is MakeBorders or CombinePieces or CombineLines or PartPiece or StackColours or StackFrames;

    /// <summary>Picks what was made of pieces, and that whose form is another; false where the edit made nothing of pieces.</summary>
    protected bool PickBuilt(Edit edit, Core.Projects.Project before)
    {
        if (!IsBuilding(edit)) return false;
        var made = Value.Design.Pieces.Where(p => before.Design.Find(p.Id) is not { } was ? !p.Hidden : !ReferenceEquals(was.Outline.Path, p.Outline.Path) && edit is not MakeBorders).Select(p => p.Id).ToImmutableArray();
        if (!made.IsEmpty) Pick(Picked.OfPieces(made));
        return true;
    }

    /// <summary>A stock that is likely for a layer of a piece: that of the layer below, or the first that is another.</summary>
    public string? LikelyStock(Piece piece) =>
        Value.Design.Pieces.Take(Value.Design.Pieces.IndexOf(piece)).LastOrDefault(p => p.Stock != piece.Stock)?.Stock ?? On.Drawer.Offered.FirstOrDefault(s => s.Key != piece.Stock)?.Key;

    /// <summary>Ways to make the picked pieces one, carried out to be looked at.</summary>
    public IReadOnlyList<JoinPreview> JoinPreviews => JoinPreview.For(Value.Design, Picked.Pieces, ColourOf, Units);

    /// <summary>Anything else that belongs to an edit that a form or button asked for and that was done.</summary>
    protected virtual Task DoneAsync(Edit edit, Core.Projects.Project before, CancellationToken stop) => Task.CompletedTask;

    /// <summary>Small picture of a piece; its address changes with what it shows, so that it is kept for good.</summary>
    public async Task<IActionResult> OnGetThumbnailAsync(string piece, CancellationToken stop)
    {
        if (Value.Design.Find(piece) is not { } shown) return NotFound();
        var desk = HttpContext.RequestServices.GetRequiredService<PictureDesk>();
        var printed = new Dictionary<string, byte[]>();
        foreach (var picture in Value.Design.Pictures.Where(p => shown.Items.Any(i => i is PictureItem item && item.Of == p.Id))) printed[picture.Id] = await desk.PngAsync(picture, Thumbnail.PictureSide, stop);
        Response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return Content(Thumbnail.Svg(shown, ColourOf(shown), printed), "image/svg+xml");
    }
}
