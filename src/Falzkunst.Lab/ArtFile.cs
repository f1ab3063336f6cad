using System.Text.Json;
using System.Text.Json.Serialization;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Assembling;
using Falzkunst.Core.Running;
using Falzkunst.Formats;

namespace Falzkunst.Lab;

/// <summary>Reading art files for the verbs.</summary>
internal static class ArtFile
{
    /// <summary>Reads by what is in the file, not by its name.</summary>
    public static Drawing Read(byte[] bytes) => ArtReader.Read(bytes, Reading);

    /// <exception cref="ReadRefused">The drawing asks for more than it may have.</exception>
    public static Design Assemble(Drawing drawing, IReadOnlyList<LookRule> rules)
    {
        try
        {
            return Assembler.Assemble(drawing, rules, _ => SeedCatalogue.Stocks[0].Key, budget: Reading);
        }
        catch (BudgetSpent spent)
        {
            throw ReadRefused.ForBudget(spent);
        }
    }

    /// <summary>
    /// One file a call, so one budget for reading it and for all that is made of it. Nobody waits at a page for it: the work is
    /// what ends it, the same on a slow machine; the clock only where something hangs.
    /// </summary>
    public static readonly Budget Reading = new(BudgetLimits.Reading with { Time = TimeSpan.FromMinutes(2) });

    /// <summary>All lines where they stand on the page, those on no piece too; a loose closed cut counts as an outer cut.</summary>
    public static List<SheetLine> Lines(Design design)
    {
        var lines = design.Pieces.SelectMany(p => SheetLines.Collect(p, 1, p.Place)).ToList();
        foreach (var loose in design.Loose)
        {
            if (LawOfPaper.StageOf(loose, isOutline: false) is { } stage)
                lines.Add(new SheetLine(stage, loose.Operation, loose.Ink, "", 1, loose.Id, loose.Path));
        }
        return lines;
    }

    /// <summary>Look rules from a JSON file: [{"operation":"score","stroke":"#0000FF","dashed":true,…}].</summary>
    public static IReadOnlyList<LookRule> Rules(string? path)
    {
        if (path is null) return [];
        try
        {
            return JsonSerializer.Deserialize<List<LookRule>>(Arguments.ReadBytes(path), RuleOptions) ?? [];
        }
        catch (JsonException e)
        {
            throw new LabRefused($"the rules in {path} are not understood at {e.Path ?? "the beginning"} (line {e.LineNumber + 1})");
        }
    }

    private static readonly JsonSerializerOptions RuleOptions = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
    };
}
