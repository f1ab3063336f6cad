using System.Text.Encodings.Web;
using System.Text.Json;

namespace Falzkunst.Lab;

/// <summary>The one JSON object of a result.</summary>
internal static class LabJson
{
    private static readonly JsonSerializerOptions Options = new()
    {
        PropertyNamingPolicy = JsonNamingPolicy.SnakeCaseLower,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        WriteIndented = true,
    };

    public static string Write(object result) => JsonSerializer.Serialize(result, Options);
}
