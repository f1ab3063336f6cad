using System.Globalization;
using System.Text.Json.Nodes;

namespace Falzkunst.Data.Json.Upcasting;

/// <summary>
/// From schema 1 to 2. Lines had a role and their own copy of look, operation, ink and manner; a piece had all its lines in one
/// list, the outline first; a stop, a finding and the reason for a copy without a place were sentences; an edit spoke of lines
/// of one piece.
/// </summary>
internal static class FromSchema1
{
    private static readonly string[] MannerParts =
        ["fold", "half-cut", "from-back", "left-out", "dash", "gap", "tip", "fill", "fill-distance", "fill-angle", "force", "speed", "blade-out", "temperature", "times"];

    public static void Upcast(JsonObject node, StoredKind kind)
    {
        switch (kind)
        {
            case StoredKind.Design: Design(node); break;
            case StoredKind.Variants: Variants(node); break;
            case StoredKind.Sheets or StoredKind.StockLayout: Unplaced(node); break;
            case StoredKind.RunPlan: RunPlan(node); break;
            case StoredKind.Edit: Edit(node); break;
            case StoredKind.SetOut: break;
            default: throw new ArgumentOutOfRangeException(nameof(kind));
        }
    }

    private static void Design(JsonObject design)
    {
        var styles = new Styles();
        foreach (var piece in Each(design, "pieces")) Piece(piece, styles);
        var next = 1;
        foreach (var loose in Each(design, "loose"))
        {
            next = Math.Max(next, 1 + NumberIn((string)loose["line"]!["id"]!));
            loose["line"] = Line(Take(loose, "line")!.AsObject(), styles);
        }
        foreach (var finding in Each(design, "findings")) Rename(finding, "message", "told");
        design["nextLoose"] = next;
        design["styles"] = styles.All;
    }

    private static void Variants(JsonObject variants)
    {
        var styles = new Styles();
        foreach (var variant in Each(variants, "all"))
        {
            foreach (var piece in Each(variant, "pieces")) Piece(piece, styles);
        }
        variants["styles"] = styles.All;
    }

    private static void Piece(JsonObject piece, Styles styles)
    {
        var lines = Take(piece, "lines")!.AsArray().Select(l => l!.AsObject()).ToList();
        piece["nextItem"] = 1 + lines.Max(l => NumberIn((string)l["id"]!));
        piece["outline"] = Line(lines[0], styles);
        piece["items"] = new JsonArray([.. lines.Skip(1).Select(l => new JsonObject { ["line"] = Line(l, styles) })]);
    }

    private static JsonObject Line(JsonObject line, Styles styles)
    {
        var style = new JsonObject { ["look"] = Take(line, "look"), ["operation"] = Take(line, "operation") };
        foreach (var name in new[] { "ink", "manner", "sizeLocked" })
        {
            if (Take(line, name) is { } value) style[name] = value;
        }
        var slim = new JsonObject { ["id"] = Take(line, "id"), ["style"] = styles.NumberOf(style) };
        if (Take(line, "name") is { } named) slim["name"] = named;
        return slim;
    }

    private static void Unplaced(JsonObject layout)
    {
        foreach (var unplaced in Each(layout, "unplaced")) unplaced["why"] = new JsonObject { ["code"] = "told", ["told"] = Take(unplaced, "reason") };
    }

    private static void RunPlan(JsonObject plan)
    {
        foreach (var step in Each(plan, "steps").Where(s => (string?)s["step"] == "stop"))
        {
            var told = new JsonObject { ["title"] = Take(step, "title"), ["actions"] = Take(step, "actions") };
            if (Take(step, "warning") is { } warning) told["warning"] = warning;
            step["told"] = told;
            step["work"] = new JsonArray();
            step["mustNot"] = "none";
        }
    }

    private static void Edit(JsonObject edit)
    {
        if (edit["what"] is JsonObject what && what["lines"] is JsonArray { Count: > 0 } picked)
        {
            what["lines"] = LinesOf((string)what["pieces"]![0]!, picked);
            what["pieces"] = new JsonArray();
        }
        var kind = (string)edit["edit"]!;
        if (kind is "set-operation" or "set-manner" or "set-ink" or "lock-size" or "remove-lines")
            edit["lines"] = LinesOf((string)Take(edit, "piece")!, (JsonArray)Take(edit, "lines")!);
        if (kind != "set-manner") return;
        edit["edit"] = "change-manner";
        edit["parts"] = new JsonArray([.. MannerParts.Select(p => JsonValue.Create(p))]);
        Rename(edit, "manner", "to");
    }

    private static JsonArray LinesOf(string piece, JsonArray ids) => [new JsonObject { ["piece"] = piece, ["ids"] = ids.DeepClone() }];

    /// <summary>The number in an id of schema 1: a letter and a number.</summary>
    private static int NumberIn(string id) => int.TryParse(id.AsSpan(1), NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : 0;

    private static IEnumerable<JsonObject> Each(JsonObject node, string list) => node[list]?.AsArray().Select(n => n!.AsObject()) ?? [];

    /// <summary>Takes a value out of an object, so that it can go into another.</summary>
    private static JsonNode? Take(JsonObject node, string name)
    {
        var value = node[name];
        node.Remove(name);
        return value;
    }

    private static void Rename(JsonObject node, string from, string to)
    {
        if (Take(node, from) is { } value) node[to] = value;
    }

    private sealed class Styles
    {
        private readonly Dictionary<string, int> _numbers = new(StringComparer.Ordinal);

        public JsonArray All { get; } = [];

        public int NumberOf(JsonObject style)
        {
            var text = style.ToJsonString();
            if (_numbers.TryGetValue(text, out var number)) return number;
            All.Add((JsonNode)style);
            return _numbers[text] = All.Count - 1;
        }
    }
}
