using System.Security.Cryptography;
using System.Text;

namespace Falzkunst.Core.Designs;

/// <summary>SHA-256 of texts and bytes, lower-case hexadecimal: equal contents have equal hashes, and no others.</summary>
public static class ContentHash
{
    /// <summary>The whole hash, 64 digits.</summary>
    public static string Compute(string text) => Compute(Encoding.UTF8.GetBytes(text));

    /// <summary>The whole hash of bytes, 64 digits.</summary>
    public static string Compute(ReadOnlySpan<byte> bytes) => Convert.ToHexStringLower(SHA256.HashData(bytes));

    /// <summary>Its first digits, where few texts are told apart.</summary>
    public static string Short(string text, int digits) => Compute(text)[..digits];
}
