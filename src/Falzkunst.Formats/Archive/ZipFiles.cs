using System.Collections.Immutable;
using System.IO;
using System.IO.Compression;

namespace Falzkunst.Formats.Archive;

/// <summary>What a file in a ZIP is, by its name.</summary>
public enum ZippedKind
{
    Svg,
    Dxf,
    Picture,
    Archive,
    Other,
}

/// <summary>A file in a ZIP.</summary>
/// <param name="Index">Its number in the ZIP, from 0.</param>
/// <param name="Name">Its name without folders, cleaned for people.</param>
/// <param name="Folder">The folders it lies in; empty for none.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Bytes">How large it says it is, unpacked.</param>
/// <param name="Motif">Its name without ending, lower case: the same motif in several formats has it in common.</param>
public sealed record ZippedFile(int Index, string Name, string Folder, ZippedKind Kind, long Bytes, string Motif)
{
    /// <summary>It can be brought in.</summary>
    public bool IsArt => Kind is ZippedKind.Svg or ZippedKind.Dxf or ZippedKind.Picture;
}

/// <summary>
/// Reads ZIP archives as hostile: how many files, how large, how tightly packed, what they are called. Archives within are listed
/// and not opened. What a file says of its size is believed for nothing but the list; unpacking counts.
/// </summary>
public static class ZipFiles
{
    /// <summary>More files than this nobody looks through.</summary>
    public const int MostFiles = 400;

    /// <summary>No file in it is unpacked beyond this, bytes.</summary>
    private const long LargestFile = 20 * 1024 * 1024;

    /// <summary>Files taken in one go are unpacked to no more than this together, bytes.</summary>
    private const long LargestTogether = 5 * LargestFile;

    /// <summary>A file that unpacks to more than so many times what it was packed to is no drawing, once it is large.</summary>
    private const long MostRatio = 200;
    private const long RatioFrom = 1024 * 1024;

    private const int LongestName = 120;
    private static readonly byte[] Begin = "PK"u8.ToArray();

    /// <summary>The bytes begin like a ZIP.</summary>
    public static bool IsZip(ReadOnlySpan<byte> file) => file.StartsWith(Begin);

    /// <summary>The files in it, folders and what systems leave behind passed over.</summary>
    /// <exception cref="ReadRefused">It is no ZIP, or has more files than are listed.</exception>
    public static ImmutableArray<ZippedFile> List(byte[] zip)
    {
        using var archive = Open(zip);
        return [.. archive.Entries.Select((e, i) => Described(e, i)).OfType<ZippedFile>()];
    }

    /// <summary>Some of its drawings, unpacked.</summary>
    /// <exception cref="ReadRefused">One is broken or too large, or they are too large together.</exception>
    public static ImmutableArray<(string Name, byte[] Content)> Take(byte[] zip, IReadOnlyCollection<int> entries)
    {
        var taken = ImmutableArray.CreateBuilder<(string, byte[])>();
        long together = 0;
        foreach (var file in List(zip).Where(f => f.IsArt && entries.Contains(f.Index)))
        {
            var content = Unpack(zip, file.Index);
            if ((together += content.Length) > LargestTogether) throw new ReadRefused("zip-too-large", $"Those files are larger than {LargestTogether / 1024 / 1024} MB together. Bring in fewer at a time.");
            taken.Add((file.Name, content));
        }
        return taken.ToImmutable();
    }

    /// <summary>One of its files, unpacked.</summary>
    /// <exception cref="ReadRefused">There is no such file, it is broken, or unpacks to more than is read.</exception>
    public static byte[] Unpack(byte[] zip, int index)
    {
        using var archive = Open(zip);
        if (index < 0 || index >= archive.Entries.Count || Described(archive.Entries[index], index) is not { IsArt: true } file)
            throw new ReadRefused("zip-entry", "There is no drawing of that number in the ZIP.");
        var entry = archive.Entries[index];
        try
        {
            using var packed = entry.Open();
            using var content = new MemoryStream();
            var part = new byte[81920];
            for (int read; (read = packed.Read(part, 0, part.Length)) > 0;)
            {
                content.Write(part, 0, read);
                if (content.Length > LargestFile || (content.Length > RatioFrom && content.Length > MostRatio * Math.Max(1, entry.CompressedLength)))
                    throw new ReadRefused("zip-too-large", $"{file.Name} unpacks to far more than a drawing holds and was not read.");
            }
            return content.ToArray();
        }
        catch (Exception e) when (e is InvalidDataException or IOException or NotSupportedException)
        {
            throw new ReadRefused("zip-broken", $"{file.Name} cannot be unpacked: it is broken, or locked by a password.");
        }
    }

    private static ZipArchive Open(byte[] zip)
    {
        try
        {
            var archive = new ZipArchive(new MemoryStream(zip, writable: false), ZipArchiveMode.Read);
            if (archive.Entries.Count <= MostFiles) return archive;
            var count = archive.Entries.Count;
            archive.Dispose();
            throw new ReadRefused("zip-too-many", $"The ZIP holds {count} files, more than the {MostFiles} that are looked through. Unpack it and bring in those that you want.");
        }
        catch (Exception e) when (e is InvalidDataException or IOException or ArgumentException or OverflowException)
        {
            throw new ReadRefused("zip-broken", "The ZIP is broken or not complete. Download it once more.");
        }
    }

    private static ZippedFile? Described(ZipArchiveEntry entry, int index)
    {
        var parts = entry.FullName.Replace('\\', '/').Split('/', StringSplitOptions.RemoveEmptyEntries);
        if (parts.Length == 0 || entry.FullName.EndsWith('/') || parts.Any(p => (p.StartsWith('.') && p is not "." and not "..") || p == "__MACOSX")) return null;
        var name = ShownText.Clean(parts[^1], LongestName);
        var ending = System.IO.Path.GetExtension(name).ToLowerInvariant();
        var kind = ending switch
        {
            ".svg" => ZippedKind.Svg,
            ".dxf" => ZippedKind.Dxf,
            ".png" or ".jpg" or ".jpeg" or ".webp" or ".gif" or ".bmp" or ".tif" or ".tiff" => ZippedKind.Picture,
            ".zip" or ".rar" or ".7z" => ZippedKind.Archive,
            _ => ZippedKind.Other,
        };
        var folder = string.Join(" / ", parts[..^1].Where(p => p is not "." and not "..").Select(p => ShownText.Clean(p, LongestName)));
        return new ZippedFile(index, name, folder, kind, Math.Max(0, entry.Length), System.IO.Path.GetFileNameWithoutExtension(name).Trim().ToLowerInvariant());
    }

    /// <summary>Of each motif the file to take: a vector drawing before a picture, SVG before DXF; none where it comes in no form that is read.</summary>
    public static ImmutableArray<ZippedFile> Proposed(IEnumerable<ZippedFile> files) =>
        [.. files.GroupBy(f => f.Motif).Select(g => g.OrderBy(f => f.Kind).First()).Where(f => f.IsArt)];
}
