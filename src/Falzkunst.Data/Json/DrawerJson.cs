using System.Collections.Immutable;
using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Data.Json;

/// <summary>A file is no drawer, or something in it cannot be: where, and what.</summary>
public sealed class DrawerRefused(string message) : Exception(message)
{
    /// <summary>Which thing of the file the rules want otherwise, such as "stocks[2]"; null where it is about the file.</summary>
    public string? Where { get; init; }

    /// <summary>What of it, with numbers; the words are the page's.</summary>
    public EditRefused? Why { get; init; }
}

/// <summary>The drawer, or a thing of it, as JSON.</summary>
public static class DrawerJson
{
    /// <summary>No drawer is larger, bytes.</summary>
    public const int MostBytes = 2 * 1024 * 1024;

    private const int MostDepth = 16;

    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        NumberHandling = JsonNumberHandling.Strict,
        RespectNullableAnnotations = true,
        RespectRequiredConstructorParameters = true,
        MaxDepth = MostDepth,
        WriteIndented = true,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower, allowIntegerValues: false) },
    };

    /// <summary>A drawer as a file.</summary>
    public static byte[] Write(Drawer drawer) => JsonSerializer.SerializeToUtf8Bytes(
        new DrawerDocument(
            DrawerDocument.Kind, DrawerDocument.Version, [.. drawer.Stocks.Select(StockDocument.From)], [.. drawer.Machines.Select(MachineDocument.From)],
            [.. drawer.Tools.Select(ToolDocument.From)]),
        Options);

    /// <summary>The drawer in a file, every thing of it as the rules want it.</summary>
    /// <exception cref="DrawerRefused">It is none; nothing of it is taken.</exception>
    public static Drawer Read(byte[] file)
    {
        if (file.Length > MostBytes) throw new DrawerRefused($"The file is larger than {MostBytes / 1024 / 1024} MB; no drawer is.");
        try
        {
            var text = Text(file);
            using (var whole = JsonDocument.Parse(text, new JsonDocumentOptions { MaxDepth = MostDepth })) DemandNoNulls(whole.RootElement, "");
            var document = JsonSerializer.Deserialize<DrawerDocument>(text, Options);
            if (document is not { Falzkunst: DrawerDocument.Kind }) throw new DrawerRefused("The file is no drawer: its member “falzkunst” does not say “drawer”.");
            if (document.Schema is < 1 or > DrawerDocument.Version) throw new DrawerRefused($"The file is of schema {document.Schema}, written by a later Falzkunst; this one reads up to {DrawerDocument.Version}.");
            var drawer = new Drawer(
                [.. document.Stocks.OrEmpty().Select((s, i) => Sound(s.ToStock, DrawerRules.Demand, s.Key, $"stocks[{i}]"))],
                [.. document.Machines.OrEmpty().Select((m, i) => Sound(m.ToMachine, DrawerRules.Demand, m.Key, $"machines[{i}]"))])
            {
                Tools = [.. document.Tools.OrEmpty().Select((t, i) => Sound(t.ToTool, DrawerRules.Demand, t.Key, $"tools[{i}]"))],
            };
            Apart(drawer.Stocks.Select(s => s.Key), "stocks");
            Apart(drawer.Machines.Select(m => m.Key), "machines");
            Apart(drawer.Tools.Select(t => t.Key), "tools");
            return drawer;
        }
        catch (JsonException e)
        {
            var line = e.LineNumber is { } l ? $", line {l + 1}" : "";
            throw new DrawerRefused($"The file cannot be read at {(e.Path is { Length: > 1 } path ? path[(path.StartsWith("$.", StringComparison.Ordinal) ? 2 : 1)..] : "its beginning")}{line}: a member is lacking there, is not known, or has no such value.");
        }
    }

    /// <summary>What is not there is left out of a drawer's file; a null says nothing, wherever it stands.</summary>
    private static void DemandNoNulls(JsonElement element, string where)
    {
        switch (element.ValueKind)
        {
            case JsonValueKind.Null:
                throw new DrawerRefused($"The file has a null {(where.Length == 0 ? "in the place of a drawer" : $"at {where}")}. Leave out what is not there.");
            case JsonValueKind.Object:
                foreach (var member in element.EnumerateObject()) DemandNoNulls(member.Value, where.Length == 0 ? member.Name : $"{where}.{member.Name}");
                break;
            case JsonValueKind.Array:
                foreach (var (item, i) in element.EnumerateArray().Select((e, i) => (e, i))) DemandNoNulls(item, $"{where}[{i}]");
                break;
        }
    }

    /// <summary>A thing of the drawer as the audit keeps it.</summary>
    internal static string Document(object thing) => thing switch
    {
        Stock s => JsonSerializer.Serialize(StockDocument.From(s), Options),
        Machine m => JsonSerializer.Serialize(MachineDocument.From(m), Options),
        CraftTool t => JsonSerializer.Serialize(ToolDocument.From(t), Options),
        _ => throw new ArgumentException("No thing of a drawer.", nameof(thing)),
    };

    internal static Stock StockFrom(JsonNode document) => document.Deserialize<StockDocument>(Options)!.ToStock();

    internal static Machine MachineFrom(JsonNode document) => document.Deserialize<MachineDocument>(Options)!.ToMachine();

    internal static CraftTool ToolFrom(JsonNode document) => document.Deserialize<ToolDocument>(Options)!.ToTool();

    private static string Text(byte[] file)
    {
        try
        {
            return new UTF8Encoding(false, throwOnInvalidBytes: true).GetString(file.AsSpan(file.AsSpan().StartsWith(Encoding.UTF8.Preamble) ? 3 : 0));
        }
        catch (DecoderFallbackException)
        {
            throw new DrawerRefused("The file is no text in UTF-8.");
        }
    }

    private static T Sound<T>(Func<T> make, Action<T> demand, string key, string where)
    {
        try
        {
            if (!DrawerRules.IsKey(key)) throw new FormatException("its key is more than lower case letters, digits and hyphens");
            var thing = make();
            demand(thing);
            return thing;
        }
        catch (EditRefused e)
        {
            throw new DrawerRefused($"{where} cannot be taken: {e.Message}{(e.Field is null ? "" : $" ({e.Field})")}.") { Where = where, Why = e };
        }
        catch (Exception e) when (e is FormatException or ArgumentException or OverflowException)
        {
            throw new DrawerRefused($"{where} cannot be taken: {e.Message}.");
        }
    }

    private static void Apart(IEnumerable<string> keys, string where)
    {
        if (keys.GroupBy(k => k).FirstOrDefault(g => g.Count() > 1) is { } twice) throw new DrawerRefused($"{where} has the key “{twice.Key}” twice.");
    }
}
