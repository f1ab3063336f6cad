using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace Falzkunst.Data.Json;

/// <summary>How values are written into the database. Numbers read back to the same bits.</summary>
public static class StoredJson
{
    /// <summary>Goes up whenever a part written before could no longer be read as it is.</summary>
    public const int SchemaVersion = 1;

    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        IgnoreReadOnlyProperties = true,
        AllowOutOfOrderMetadataProperties = true,
        Converters = { new PointJson(), new AffineJson(), new PathJson(), new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower) },
    };

    public static string Write<T>(T value) => JsonSerializer.Serialize(value, Options);

    /// <exception cref="JsonException">The text is not such a value.</exception>
    public static T Read<T>(string text) =>
        JsonSerializer.Deserialize<T>(text, Options) ?? throw new JsonException($"A stored {typeof(T).Name} is empty.");
}
