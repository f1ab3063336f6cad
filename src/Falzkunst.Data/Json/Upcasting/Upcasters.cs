using System.Text.Json;
using System.Text.Json.Nodes;

namespace Falzkunst.Data.Json.Upcasting;

/// <summary>What a stored text is.</summary>
internal enum StoredKind
{
    SetOut,
    Design,
    Variants,
    Sheets,
    StockLayout,
    RunPlan,
    Edit,
}

/// <summary>
/// The way from every schema that ever landed to today's, one step a version, on JSON alone: a step knows the two schemas it
/// joins and no type of the code, so that it stays as it is while the code goes on.
/// </summary>
internal static class Upcasters
{
    /// <summary>The step that leaves each version.</summary>
    private static readonly Dictionary<int, Action<JsonObject, StoredKind>> Steps = new()
    {
        [1] = FromSchema1.Upcast,
    };

    /// <summary>A text of a former schema as today's.</summary>
    /// <exception cref="JsonException">It was written by a later state, or is no object.</exception>
    public static JsonNode Upcast(JsonNode node, StoredKind kind, int version)
    {
        if (version > StoredJson.SchemaVersion) throw new JsonException($"A stored {kind} has schema {version}; this state knows {StoredJson.SchemaVersion} and what came before.");
        for (var at = version; at < StoredJson.SchemaVersion; at++) Steps[at](node.AsObject(), kind);
        return node;
    }
}
