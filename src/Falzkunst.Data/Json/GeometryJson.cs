using System.Text.Json;
using System.Text.Json.Serialization;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Texts;

namespace Falzkunst.Data.Json;

/// <summary>A point as [x, y].</summary>
internal sealed class PointJson : JsonConverter<Point>
{
    public override Point Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        Span<double> n = stackalloc double[2];
        Numbers.Read(ref reader, n);
        return new Point(n[0], n[1]);
    }

    public override void Write(Utf8JsonWriter writer, Point value, JsonSerializerOptions options) =>
        Numbers.Write(writer, [value.X, value.Y]);
}

/// <summary>An affine map as its six numbers.</summary>
internal sealed class AffineJson : JsonConverter<Affine>
{
    public override Affine Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        Span<double> n = stackalloc double[6];
        Numbers.Read(ref reader, n);
        return new Affine(n[0], n[1], n[2], n[3], n[4], n[5]);
    }

    public override void Write(Utf8JsonWriter writer, Affine value, JsonSerializerOptions options) =>
        Numbers.Write(writer, [value.A, value.B, value.C, value.D, value.E, value.F]);
}

/// <summary>A path as its exact text.</summary>
internal sealed class PathJson : JsonConverter<Core.Geometry.Path>
{
    public override Core.Geometry.Path Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        PathText.Read(reader.GetString() ?? throw new JsonException("A path is missing."));

    public override void Write(Utf8JsonWriter writer, Core.Geometry.Path value, JsonSerializerOptions options) =>
        writer.WriteStringValue(PathText.Write(value));
}

/// <summary>A shaped glyph as its five numbers.</summary>
internal sealed class ShapedGlyphJson : JsonConverter<ShapedGlyph>
{
    public override ShapedGlyph Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        Span<double> n = stackalloc double[5];
        Numbers.Read(ref reader, n);
        return new ShapedGlyph((int)n[0], (int)n[1], n[2], n[3], n[4]);
    }

    public override void Write(Utf8JsonWriter writer, ShapedGlyph value, JsonSerializerOptions options) =>
        Numbers.Write(writer, [value.Index, value.Cluster, value.Advance, value.X, value.Y]);
}

internal static class Numbers
{
    public static void Read(ref Utf8JsonReader reader, scoped Span<double> into)
    {
        if (reader.TokenType != JsonTokenType.StartArray) throw new JsonException("A list of numbers was expected.");
        for (var i = 0; i < into.Length; i++)
        {
            if (!reader.Read() || reader.TokenType != JsonTokenType.Number) throw new JsonException("A number is missing.");
            into[i] = reader.GetDouble();
        }
        if (!reader.Read() || reader.TokenType != JsonTokenType.EndArray) throw new JsonException("There are too many numbers.");
    }

    public static void Write(Utf8JsonWriter writer, ReadOnlySpan<double> numbers)
    {
        writer.WriteStartArray();
        foreach (var n in numbers) writer.WriteNumberValue(n);
        writer.WriteEndArray();
    }
}
