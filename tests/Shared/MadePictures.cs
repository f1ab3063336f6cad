using System.Buffers.Binary;
using System.IO.Compression;
using System.Text;

namespace Falzkunst.Tests.Shared;

/// <summary>Picture files made byte by byte, so that no writer stands between a test and what it says.</summary>
internal static class MadePictures
{
    /// <summary>A PNG of RGBA dots.</summary>
    public static byte[] Png(int width, int height, Func<int, int, (byte R, byte G, byte B, byte A)> dot, int? dotsPerMetre = null)
    {
        var rows = new byte[height * (width * 4 + 1)];
        for (var y = 0; y < height; y++)
        {
            for (var x = 0; x < width; x++)
            {
                var at = y * (width * 4 + 1) + 1 + x * 4;
                (rows[at], rows[at + 1], rows[at + 2], rows[at + 3]) = dot(x, y);
            }
        }
        return PngOf(width, height, 8, 6, rows, dotsPerMetre);
    }

    /// <summary>A PNG that says what it likes of its size and has these rows.</summary>
    public static byte[] PngOf(int width, int height, byte bits, byte kind, byte[] rows, int? dotsPerMetre = null)
    {
        using var file = new MemoryStream();
        file.Write([0x89, (byte)'P', (byte)'N', (byte)'G', 13, 10, 26, 10]);
        var head = new byte[13];
        BinaryPrimitives.WriteInt32BigEndian(head, width);
        BinaryPrimitives.WriteInt32BigEndian(head.AsSpan(4), height);
        (head[8], head[9]) = (bits, kind);
        Chunk("IHDR", head);
        if (dotsPerMetre is { } said)
        {
            var physical = new byte[9];
            BinaryPrimitives.WriteInt32BigEndian(physical, said);
            BinaryPrimitives.WriteInt32BigEndian(physical.AsSpan(4), said);
            physical[8] = 1;
            Chunk("pHYs", physical);
        }
        using var packed = new MemoryStream();
        using (var zip = new ZLibStream(packed, CompressionLevel.Fastest, leaveOpen: true)) zip.Write(rows);
        Chunk("IDAT", packed.ToArray());
        Chunk("IEND", []);
        return file.ToArray();

        void Chunk(string name, byte[] content)
        {
            Span<byte> number = stackalloc byte[4];
            BinaryPrimitives.WriteInt32BigEndian(number, content.Length);
            file.Write(number);
            byte[] named = [.. Encoding.ASCII.GetBytes(name), .. content];
            file.Write(named);
            BinaryPrimitives.WriteUInt32BigEndian(number, Crc(named));
            file.Write(number);
        }
    }

    /// <summary>A BMP of 24 bits, its rows from the bottom up.</summary>
    public static byte[] Bmp(int width, int height, Func<int, int, (byte R, byte G, byte B)> dot)
    {
        var row = (width * 3 + 3) / 4 * 4;
        var file = new byte[54 + row * height];
        Encoding.ASCII.GetBytes("BM").CopyTo(file, 0);
        BinaryPrimitives.WriteInt32LittleEndian(file.AsSpan(2), file.Length);
        file[10] = 54;
        file[14] = 40;
        BinaryPrimitives.WriteInt32LittleEndian(file.AsSpan(18), width);
        BinaryPrimitives.WriteInt32LittleEndian(file.AsSpan(22), height);
        (file[26], file[28]) = (1, 24);
        BinaryPrimitives.WriteInt32LittleEndian(file.AsSpan(38), 11811);
        for (var y = 0; y < height; y++)
        {
            for (var x = 0; x < width; x++)
            {
                var at = 54 + (height - 1 - y) * row + x * 3;
                (file[at + 2], file[at + 1], file[at]) = dot(x, y);
            }
        }
        return file;
    }

    /// <summary>A TIFF of 8 bits RGB, little-endian, one strip, 300 dots to the inch.</summary>
    public static byte[] Tiff(int width, int height, Func<int, int, (byte R, byte G, byte B)> dot)
    {
        (ushort Tag, ushort Type, uint Count, uint Value)[] tags =
        [
            (256, 4, 1, (uint)width), (257, 4, 1, (uint)height), (258, 3, 3, 8), (259, 3, 1, 1), (262, 3, 1, 2), (273, 4, 1, 16),
            (277, 3, 1, 3), (278, 4, 1, (uint)height), (279, 4, 1, (uint)(width * height * 3)), (282, 5, 1, 8), (296, 3, 1, 2),
        ];
        var directory = 16 + width * height * 3 + 6;
        var file = new byte[directory + 2 + tags.Length * 12 + 4];
        Encoding.ASCII.GetBytes("II*\0").CopyTo(file, 0);
        BinaryPrimitives.WriteInt32LittleEndian(file.AsSpan(4), directory);
        (file[8], file[9], file[12]) = (300 & 255, 300 >> 8, 1);
        for (var i = 0; i < width * height; i++) (file[16 + 3 * i], file[17 + 3 * i], file[18 + 3 * i]) = dot(i % width, i / width);
        var bits = 16 + width * height * 3;
        for (var c = 0; c < 3; c++) file[bits + 2 * c] = 8;
        BinaryPrimitives.WriteUInt16LittleEndian(file.AsSpan(directory), (ushort)tags.Length);
        for (var i = 0; i < tags.Length; i++)
        {
            var at = file.AsSpan(directory + 2 + i * 12);
            BinaryPrimitives.WriteUInt16LittleEndian(at, tags[i].Tag);
            BinaryPrimitives.WriteUInt16LittleEndian(at[2..], tags[i].Type);
            BinaryPrimitives.WriteUInt32LittleEndian(at[4..], tags[i].Count);
            BinaryPrimitives.WriteUInt32LittleEndian(at[8..], tags[i].Tag == 258 ? (uint)bits : tags[i].Value);
        }
        return file;
    }

    /// <summary>A GIF of one dot in red, twice: the second picture is another.</summary>
    public static byte[] Gif() =>
    [
        .. "GIF89a"u8, 1, 0, 1, 0, 0x80, 0, 0, 255, 0, 0, 0, 0, 255,
        0x2C, 0, 0, 0, 0, 1, 0, 1, 0, 0, 2, 2, 0x44, 1, 0, 0x2C, 0, 0, 0, 0, 1, 0, 1, 0, 0, 2, 2, 0x4C, 1, 0, 0x3B,
    ];

    /// <summary>A JPEG with a note of its camera: how it was held, and its resolution.</summary>
    public static byte[] WithOrientation(byte[] jpeg, ushort orientation)
    {
        byte[] exif =
        [
            .. "Exif\0\0II*\0"u8, 8, 0, 0, 0, 1, 0, 0x12, 1, 3, 0, 1, 0, 0, 0, (byte)orientation, 0, 0, 0, 0, 0, 0, 0,
        ];
        byte[] marker = [0xFF, 0xE1, (byte)((exif.Length + 2) >> 8), (byte)(exif.Length + 2)];
        return [.. jpeg.AsSpan(0, 2), .. marker, .. exif, .. jpeg.AsSpan(2)];
    }

    /// <summary>CRC-32 as PNG has it.</summary>
    private static uint Crc(byte[] bytes)
    {
        var crc = uint.MaxValue;
        foreach (var b in bytes)
        {
            crc ^= b;
            for (var k = 0; k < 8; k++) crc = (crc & 1) == 1 ? crc >> 1 ^ 0xEDB88320 : crc >> 1;
        }
        return ~crc;
    }
}
