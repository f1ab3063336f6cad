using System.IO.Compression;
using Falzkunst.Formats.Archive;

namespace Falzkunst.Formats.Tests;

/// <summary>ZIP archives as they are bought, and as they are meant to harm.</summary>
public sealed class ZipFilesTests
{
    private static byte[] Zip(params (string Name, byte[] Content)[] files)
    {
        using var packed = new MemoryStream();
        using (var archive = new ZipArchive(packed, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var (name, content) in files)
            {
                using var entry = archive.CreateEntry(name, name.StartsWith("large", StringComparison.Ordinal) ? CompressionLevel.NoCompression : CompressionLevel.Optimal).Open();
                entry.Write(content);
            }
        }
        return packed.ToArray();
    }

    private static byte[] Zip(params string[] names) => Zip([.. names.Select(n => (n, "<svg/>"u8.ToArray()))]);

    [Fact]
    public void Of_each_motif_the_best_form_is_proposed_and_what_systems_leave_behind_is_passed_over()
    {
        var files = ZipFiles.List(Zip("tram/Tram.DXF", "tram/tram.svg", "tram/tram.png", "moon.dxf", "moon.jpg", "stars.png", "read me.txt", "more.zip", "__MACOSX/._tram.svg", ".hidden.svg", "folder/"));
        Assert.Equal(["Tram.DXF", "tram.svg", "tram.png", "moon.dxf", "moon.jpg", "stars.png", "read me.txt", "more.zip"], files.Select(f => f.Name));
        // A picture is proposed where its motif comes in no drawing.
        Assert.Equal(["tram.svg", "moon.dxf", "stars.png"], ZipFiles.Proposed(files).Select(f => f.Name));
        Assert.Equal(["tram", "tram", "tram", "", "", "", "", ""], files.Select(f => f.Folder));
        Assert.Equal([ZippedKind.Other, ZippedKind.Archive], files[^2..].Select(f => f.Kind));
    }

    [Theory]
    [InlineData("../../etc/passwd.svg", "etc", "passwd.svg")]
    [InlineData("C:\\art\\moon.svg", "C: / art", "moon.svg")]
    [InlineData("<b>bold</b>.svg", "<b>bold<", "b>.svg")] // shown as text wherever it is shown
    public void Names_lead_nowhere(string stored, string folder, string name) =>
        Assert.Equal((folder, name), ZipFiles.List(Zip(stored)).Select(f => (f.Folder, f.Name)).Single());

    [Fact]
    public void A_name_of_any_length_is_shortened_and_control_characters_are_gone()
    {
        var file = Assert.Single(ZipFiles.List(Zip(new string('a', 5000) + "\u202e\u0007.svg")));
        Assert.InRange(file.Name.Length, 1, 130);
        Assert.DoesNotContain(file.Name, c => char.IsControl(c) || c == '\u202e');
    }

    [Fact]
    public void What_unpacks_to_far_more_than_it_was_packed_to_is_refused()
    {
        var zeros = new byte[60 * 1024 * 1024];
        Assert.Equal("zip-too-large", Assert.Throws<ReadRefused>(() => ZipFiles.Unpack(Zip(("bomb.svg", zeros)), 0)).Code);
        // The same within the size that is read: its ratio tells.
        Assert.Equal("zip-too-large", Assert.Throws<ReadRefused>(() => ZipFiles.Unpack(Zip(("bomb.svg", zeros[..(8 * 1024 * 1024)])), 0)).Code);
        // Small files may be as plain as they like.
        Assert.Equal(500_000, ZipFiles.Unpack(Zip(("plain.svg", zeros[..500_000])), 0).Length);
    }

    [Fact]
    public void Many_large_drawings_are_not_unpacked_in_one_go()
    {
        var noise = new byte[12 * 1024 * 1024];
        new Random(7).NextBytes(noise);
        var zip = Zip([.. Enumerable.Range(0, 9).Select(i => ($"large {i}.svg", noise))]);
        Assert.Equal(2, ZipFiles.Take(zip, [0, 5]).Length);
        Assert.Contains("fewer", Assert.Throws<ReadRefused>(() => ZipFiles.Take(zip, [0, 1, 2, 3, 4, 5, 6, 7, 8])).Message, StringComparison.Ordinal);
    }

    [Fact]
    public void More_files_than_anybody_looks_through_are_refused_with_their_number()
    {
        var names = Enumerable.Range(0, ZipFiles.MostFiles + 1).Select(i => $"{i}.svg").ToArray();
        Assert.Equal(ZipFiles.MostFiles, ZipFiles.List(Zip(names[1..])).Length);
        Assert.Contains("401", Assert.Throws<ReadRefused>(() => ZipFiles.List(Zip(names))).Message, StringComparison.Ordinal);
    }

    [Fact]
    public void Broken_archives_and_what_is_no_drawing_are_refused()
    {
        var whole = Zip("a.svg", "b.txt");
        for (var kept = 4; kept < whole.Length; kept += 7) Assert.Throws<ReadRefused>(() => ZipFiles.List(whole[..kept]));
        Assert.Equal("zip-entry", Assert.Throws<ReadRefused>(() => ZipFiles.Unpack(whole, 1)).Code);
        Assert.Equal("zip-entry", Assert.Throws<ReadRefused>(() => ZipFiles.Unpack(whole, 2)).Code);
        // The first block of the first file is of a kind that there is not; the list at the end stands.
        var spoiled = whole.ToArray();
        spoiled[30 + "a.svg".Length] = 0xFF;
        Assert.Equal("zip-broken", Assert.Throws<ReadRefused>(() => ZipFiles.Unpack(spoiled, 0)).Code);
    }
}
