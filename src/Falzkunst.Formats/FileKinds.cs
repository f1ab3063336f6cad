namespace Falzkunst.Formats;

/// <summary>Files that are no drawings, told by how they begin.</summary>
internal static class FileKinds
{
    public const string Advice = "Save the drawing as SVG or DXF and bring that in.";

    private static readonly (byte[] Begin, string Kind)[] Known =
    [
        ([0x89, (byte)'P', (byte)'N', (byte)'G'], "a PNG picture"),
        ([0xFF, 0xD8, 0xFF], "a JPEG picture"),
        ("GIF8"u8.ToArray(), "a GIF picture"),
        ("BM"u8.ToArray(), "a BMP picture"),
        ("II*\0"u8.ToArray(), "a TIFF picture"),
        ("MM\0*"u8.ToArray(), "a TIFF picture"),
        ("RIFF"u8.ToArray(), "a WebP picture or a sound"),
        ("%PDF"u8.ToArray(), "a PDF document"),
        ("%!PS"u8.ToArray(), "a PostScript file"),
        ("PK"u8.ToArray(), "a ZIP archive"),
        ([0x1F, 0x8B], "a compressed file"),
    ];

    /// <summary>The file begins as a picture that is read.</summary>
    public static bool IsPicture(ReadOnlySpan<byte> file)
    {
        foreach (var (begin, kind) in Known)
        {
            if (file.StartsWith(begin)) return kind.Contains("picture", StringComparison.Ordinal);
        }
        return false;
    }

    /// <summary>What the file is, with its article; null for what may be a drawing.</summary>
    public static string? Detect(ReadOnlySpan<byte> file)
    {
        if (file.IsEmpty) return "an empty file";
        foreach (var (begin, kind) in Known)
        {
            if (file.StartsWith(begin)) return kind;
        }
        return null;
    }
}
