using System.Buffers.Text;
using System.Text;

namespace Falzkunst.Formats;

/// <summary>Content embedded in an address (RFC 2397).</summary>
internal static class DataAddress
{
    /// <summary>The content of a base64 address and its media type, lower case; null for other addresses and for damaged ones.</summary>
    public static (byte[] Content, string MediaType)? Read(string? address)
    {
        if (address is null || !address.AsSpan().TrimStart().StartsWith("data:", StringComparison.OrdinalIgnoreCase)) return null;
        var text = address.AsSpan().Trim()["data:".Length..];
        var comma = text.IndexOf(',');
        if (comma is < 0 or > 200 || !text[..comma].EndsWith(";base64", StringComparison.OrdinalIgnoreCase)) return null;
        var type = text[..comma].ToString().Split(';')[0].Trim().ToLowerInvariant();
        var coded = Encoding.ASCII.GetBytes(text[(comma + 1)..].ToString());
        var content = new byte[Base64.GetMaxDecodedFromUtf8Length(coded.Length)];
        return Base64.DecodeFromUtf8(coded, content, out _, out var written) == System.Buffers.OperationStatus.Done && written > 0
            ? (content[..written], type) : null;
    }
}
