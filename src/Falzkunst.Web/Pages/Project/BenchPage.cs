using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Commands;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Projects;
using Falzkunst.Web.Desk;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Project;

/// <summary>A station at which pieces are picked and worked on by commands, typed or sent by buttons.</summary>
public abstract partial class BenchPage(ProjectDesk desk) : StationPage(desk)
{
    private Picked? _picked;
    private (Design? In, Picked Picked) _read = (null, Picked.Nothing);

    public override bool HasCommands => true;

    /// <summary>What a key of this station's page picks.</summary>
    protected virtual Picked ReadPicked(string? key) => PickedKey.Read(key, Value.Design);

    /// <summary>What is picked: the chosen, else the first piece.</summary>
    public Picked Picked
    {
        get
        {
            if (_picked is not null) return _picked;
            if (!ReferenceEquals(_read.In, Value.Design)) _read = (Value.Design, ReadPicked(Selected));
            return _read.Picked;
        }
    }

    public override string? ShownKey => PickedKey.Write(Picked);

    /// <summary>Picks something else than what the page has.</summary>
    protected void Pick(Picked picked) => _picked = picked;

    /// <summary>The one piece that the tray is about; null where none or several are picked.</summary>
    public Piece? Shown => Picked.Pieces is [var only] ? Value.Design.Find(only) : null;

    public Stock? StockOf(Piece piece) => On.Drawer.Stocks.FirstOrDefault(s => s.Key == piece.Stock);
    public string ColourOf(Piece piece) => On.Drawer.ColourOf(piece.Stock);

    /// <summary>
    /// Does what a command says to what is picked. A form's text may hold names of its fields in braces, which the typed values
    /// take the place of.
    /// </summary>
    public async Task<IActionResult> OnPostCommandAsync(string? text, CancellationToken stop)
    {
        var whole = FieldName().Replace(text ?? "", m => FieldValue(m.Groups[2].Value, isText: m.Groups[1].Length > 0));
        var before = Value;
        var answer = await ActAsync(async () =>
        {
            var edit = CommandLine.Read(whole, new CommandContext(Value, Picked, On.Drawer));
            await DoNowAsync(edit, stop);
            PickAfter(edit, before);
        }, stop);
        // What was typed stays where it was typed until it is understood.
        return Notice is null || IsStale ? answer : Partial("_NoticeAlone", this);
    }

    // A length may be written with spaces in its sum, but a command's words are parted by them; a text stands in double quotes.
    private string FieldValue(string field, bool isText)
    {
        var typed = Request.Form[field].ToString();
        return isText ? $"\"{typed.Replace("\"", "", StringComparison.Ordinal)}\"" : string.Concat(typed.Where(c => !char.IsWhiteSpace(c)));
    }

    /// <summary>Picks what an edit made, so that the next command is about that.</summary>
    protected abstract void PickAfter(Edit edit, Core.Projects.Project before);

    [GeneratedRegex(@"(""?)\{(\w+)\}\1")]
    private static partial Regex FieldName();

    /// <summary>Small picture of a piece; its address changes with what it shows, so that it is kept for good.</summary>
    public IActionResult OnGetThumbnail(string piece)
    {
        if (Value.Design.Find(piece) is not { } shown) return NotFound();
        Response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return Content(Thumbnail.Svg(shown, ColourOf(shown)), "image/svg+xml");
    }
}
