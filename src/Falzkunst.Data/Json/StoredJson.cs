using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Falzkunst.Data.Json.Upcasting;

namespace Falzkunst.Data.Json;

/// <summary>How values are written into the database. Numbers read back to the same bits.</summary>
public static class StoredJson
{
    /// <summary>Goes up whenever a part written before can no longer be read as it is; <see cref="Upcasters"/> gets a step then.</summary>
    public const int SchemaVersion = 2;

    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        IgnoreReadOnlyProperties = true,
        AllowOutOfOrderMetadataProperties = true,
        Converters = { new PointJson(), new AffineJson(), new PathJson(), new ShapedGlyphJson(), new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower) },
    };

    public static string Write<T>(T value) => JsonSerializer.Serialize(value, Options);

    /// <summary>Reads what this state wrote.</summary>
    /// <exception cref="JsonException">The text is not such a value.</exception>
    public static T Read<T>(string text) =>
        JsonSerializer.Deserialize<T>(text, Options) ?? throw new JsonException($"A stored {typeof(T).Name} is empty.");

    /// <summary>Reads what this state or any former one wrote.</summary>
    /// <param name="text">The text.</param>
    /// <param name="kind">What it is.</param>
    /// <param name="version">Schema version that it was written with.</param>
    /// <exception cref="JsonException">The text is not such a value, or was written by a later state.</exception>
    internal static T Read<T>(string text, StoredKind kind, int version)
    {
        if (version == SchemaVersion) return Read<T>(text);
        var node = JsonNode.Parse(text) ?? throw new JsonException($"A stored {typeof(T).Name} is empty.");
        return Upcasters.Upcast(node, kind, version).Deserialize<T>(Options) ?? throw new JsonException($"A stored {typeof(T).Name} is empty.");
    }
}
