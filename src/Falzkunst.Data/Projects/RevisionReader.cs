using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Projects;
using Falzkunst.Data.Json;
using Falzkunst.Data.Json.Upcasting;
using Falzkunst.Data.Rows;

namespace Falzkunst.Data.Projects;

/// <summary>Puts the value of a revision together from its parts, whichever state wrote them.</summary>
internal sealed class RevisionReader(PartStore parts)
{
    public async Task<Project> ReadAsync(RevisionRow revision, CancellationToken stop)
    {
        var version = revision.SchemaVersion;
        var setOut = await PartAsync<SetOut>(revision.SetOutHash, StoredKind.SetOut);
        var design = await DesignAsync(revision.DesignHash, version, stop);
        var sheets = revision.SheetsHash is { } hash ? await PartAsync<SheetLayouts>(hash, StoredKind.Sheets) : null;
        var variants = revision.VariantsHash is { } aside ? await PartAsync<StoredVariants>(aside, StoredKind.Variants) : null;
        var shapes = await parts.ShapesAsync(variants?.All.SelectMany(v => v.Pieces).Select(p => p.Shape) ?? [], stop);
        var project = new Project(setOut, design, sheets) { Variants = variants?.With(shapes) ?? [] };
        return version == 1 && sheets is not null ? project with { Sheets = AsToday(project, sheets, revision.SheetsHash!) } : project;

        Task<T> PartAsync<T>(string part, StoredKind kind) where T : class => parts.GetAsync(part, text => StoredJson.Read<T>(text, kind, version), stop);
    }

    /// <summary>The design, as the very object that it was written from or read as before: what is known of its pieces goes on being known.</summary>
    private async Task<Design> DesignAsync(string hash, int version, CancellationToken stop)
    {
        if (parts.Find<Design>(hash) is { } known) return known;
        var text = await parts.TextAsync(hash, stop);
        var stored = StoredJson.Read<StoredDesign>(text, StoredKind.Design, version);
        var shapes = await parts.ShapesAsync(stored.Pieces.Select(p => p.Shape), stop);
        return parts.Keep(hash, stored.With(shapes), text.Length);
    }

    /// <summary>
    /// The id of a sheet of schema 1, which was its stock and number, so that sheets laid anew had it again: with the hash of the
    /// layouts that it belongs to it is that sheet's alone.
    /// </summary>
    public static string SheetId(string id, string sheetsHash) => $"{id}@{sheetsHash[..8]}";

    private static SheetLayouts AsToday(Project project, SheetLayouts sheets, string sheetsHash)
    {
        var named = sheets with { Sheets = [.. sheets.Sheets.Select(s => s with { Id = SheetId(s.Id, sheetsHash) })] };
        // What was current by the fingerprint of that time is so by today's.
        return sheets.MadeFor != Fingerprint1(project.SetOut, project.Design) ? named
            : named with { MadeFor = project.LayoutFingerprint(), Papers = SheetLayouts.PapersOf(project.Design) };
    }

    /// <summary>What layouts depended on in schema 1.</summary>
    private static string Fingerprint1(SetOut setOut, Design design)
    {
        var text = new StringBuilder();
        text.Append(CultureInfo.InvariantCulture, $"{setOut.Machine}|{setOut.Cards}|{setOut.SpacingMm:R}");
        foreach (var p in design.Pieces)
        {
            text.Append(CultureInfo.InvariantCulture, $"|{p.Id},{p.Stock},{p.Quantity},{p.OwnShape.Hash}");
            if (p.AllowedTurns != default) text.Append(CultureInfo.InvariantCulture, $",{p.AllowedTurns}");
        }
        return ContentHash.Short(text.ToString(), 16);
    }
}
