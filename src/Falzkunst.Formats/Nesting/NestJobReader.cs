using System.Collections.Immutable;
using System.Text.Json;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Formats.Nesting;

/// <summary>Reads a nest job from JSON: millimetres, y down, degrees clockwise on screen.</summary>
public static class NestJobReader
{
    private const int MostCorners = 20_000;

    /// <exception cref="ReadRefused">The text is no job; the message says where.</exception>
    public static NestJob Read(ReadOnlyMemory<byte> json)
    {
        JsonDocument document;
        try
        {
            document = JsonDocument.Parse(json, new JsonDocumentOptions { MaxDepth = 16 });
        }
        catch (JsonException e)
        {
            throw Refused($"not JSON: {e.Message}");
        }
        using (document)
        {
            var root = document.RootElement;
            if (root.ValueKind != JsonValueKind.Object) throw Refused("a job is a JSON object with sheets and pieces");
            var turns = TurnsOf(root, "rotations") ?? Turns.Quarters;
            var mirror = Flag(root, "mirror", "mirror");
            var sheets = Each(root, "sheets").Select((s, i) => Sheet(s, $"sheets[{i}]")).ToImmutableArray();
            var pieces = Each(root, "pieces").Select((p, i) => Piece(p, $"pieces[{i}]", turns, mirror ?? false)).ToImmutableArray();
            var job = new NestJob(sheets, pieces, root.TryGetProperty("spacing", out var spacing) ? Number(spacing, "spacing") : 0);
            try
            {
                NestRules.Demand(job);
            }
            catch (NestRefused refused)
            {
                throw Refused(refused.Message);
            }
            return job;
        }
    }

    private static NestSheet Sheet(JsonElement sheet, string where)
    {
        var margin = sheet.TryGetProperty("margin", out var m) ? Number(m, $"{where}.margin") : 0;
        if (margin < 0) throw Refused($"{where}.margin: must not be below 0");
        var outline = sheet.TryGetProperty("outline", out var o) ? Polygon(o, $"{where}.outline") : null;
        return new NestSheet(
            Id(sheet, where), Needed(sheet, "width", where), Needed(sheet, "height", where), new Borders(margin, margin, margin, margin),
            sheet.TryGetProperty("count", out var count) ? Whole(count, $"{where}.count") : 1)
        {
            Outline = outline,
            OutlineBorderMm = outline is null ? 0 : margin,
            IsOffcut = outline is not null,
            Blocked = [.. Each(sheet, "blocked", where).Select((b, i) => Polygon(b, $"{where}.blocked[{i}]"))],
        };
    }

    private static NestPiece Piece(JsonElement piece, string where, Turns turns, bool mirror) => new(
        Id(piece, where),
        Polygon(piece.TryGetProperty("outline", out var outline) ? outline : throw Refused($"{where}.outline: is missing"), $"{where}.outline"),
        piece.TryGetProperty("quantity", out var quantity) ? Whole(quantity, $"{where}.quantity") : 1)
    {
        Openings = [.. Each(piece, "holes", where).Select((h, i) => Polygon(h, $"{where}.holes[{i}]"))],
        Turns = TurnsOf(piece, $"{where}.rotations") ?? turns,
        MayMirror = Flag(piece, "mirror", $"{where}.mirror") ?? mirror,
    };

    private static ReadRefused Refused(string message) => new("nest-job", message);

    private static string Id(JsonElement element, string where)
    {
        if (element.ValueKind != JsonValueKind.Object) throw Refused($"{where}: must be an object");
        return element.TryGetProperty("id", out var id) && id.ValueKind == JsonValueKind.String ? id.GetString()! : throw Refused($"{where}.id: a text is needed");
    }

    private static JsonElement.ArrayEnumerator Each(JsonElement element, string name, string? where = null)
    {
        if (!element.TryGetProperty(name, out var list)) return where is null ? throw Refused($"{name}: is missing") : default;
        return list.ValueKind == JsonValueKind.Array ? list.EnumerateArray() : throw Refused($"{(where is null ? name : $"{where}.{name}")}: must be a list");
    }

    private static Turns? TurnsOf(JsonElement element, string where)
    {
        if (!element.TryGetProperty("rotations", out var turns)) return null;
        if (turns.ValueKind == JsonValueKind.String && turns.GetString() == "free") return Turns.Free;
        if (turns.ValueKind != JsonValueKind.Array || turns.GetArrayLength() == 0) throw Refused($"{where}: a list of degrees or the word free");
        return Turns.FromDegrees(turns.EnumerateArray().Select((t, i) => Number(t, $"{where}[{i}]")));
    }

    private static bool? Flag(JsonElement element, string name, string where) => !element.TryGetProperty(name, out var flag) ? null : flag.ValueKind switch
    {
        JsonValueKind.True => true,
        JsonValueKind.False => false,
        _ => throw Refused($"{where}: must be true or false"),
    };

    private static double Needed(JsonElement element, string name, string where) =>
        element.TryGetProperty(name, out var number) ? Number(number, $"{where}.{name}") : throw Refused($"{where}.{name}: is missing");

    private static double Number(JsonElement element, string where) =>
        element.ValueKind == JsonValueKind.Number && element.TryGetDouble(out var number) && double.IsFinite(number) ? number : throw Refused($"{where}: a number is needed");

    private static int Whole(JsonElement element, string where) =>
        element.ValueKind == JsonValueKind.Number && element.TryGetInt32(out var number) && number >= 0 ? number : throw Refused($"{where}: a whole number from 0 on is needed");

    private static Path Polygon(JsonElement element, string where)
    {
        if (element.ValueKind != JsonValueKind.Array || element.GetArrayLength() < 3) throw Refused($"{where}: three corners or more are needed, each [x, y]");
        if (element.GetArrayLength() > MostCorners) throw Refused($"{where}: more than {MostCorners} corners");
        var corners = new List<Point>();
        foreach (var (corner, i) in element.EnumerateArray().Select((c, i) => (c, i)))
        {
            if (corner.ValueKind != JsonValueKind.Array || corner.GetArrayLength() != 2) throw Refused($"{where}[{i}]: a corner is [x, y]");
            var p = new Point(Number(corner[0], $"{where}[{i}]"), Number(corner[1], $"{where}[{i}]"));
            if (corners.Count == 0 || corners[^1] != p) corners.Add(p);
        }
        if (corners.Count > 1 && corners[^1] == corners[0]) corners.RemoveAt(corners.Count - 1);
        if (corners.Count < 3) throw Refused($"{where}: fewer than three different corners");
        return Path.Polyline(corners, closed: true);
    }
}
