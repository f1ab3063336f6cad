using System.Security.Cryptography;
using System.Text;

namespace Falzkunst.Core.Designs;

/// <summary>SHA-256 of texts, lower-case hexadecimal: equal texts have equal hashes, and no others.</summary>
public static class ContentHash
{
    /// <summary>The whole hash, 64 digits.</summary>
    public static string Of(string text) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(text)));

    /// <summary>Its first digits, where few texts are told apart.</summary>
    public static string Short(string text, int digits) => Of(text)[..digits];
}
