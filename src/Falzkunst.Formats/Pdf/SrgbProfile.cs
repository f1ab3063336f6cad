using System.Buffers.Binary;
using System.Text;

namespace Falzkunst.Formats.Pdf;

/// <summary>
/// The sRGB colour space as an ICC profile of version 4 (ISO 15076-1): three primaries adapted to D50 and one parametric curve (IEC
/// 61966-2-1). It says what the colours of a page mean.
/// </summary>
internal static class SrgbProfile
{
    private static readonly Lazy<byte[]> Made = new(Write);

    public static byte[] Bytes => Made.Value;

    private static byte[] Write()
    {
        // Primaries and white adapted to D50 by the Bradford transform, as the ICC's own sRGB profiles have them.
        (string Tag, byte[] Data)[] tags =
        [
            ("desc", Text("sRGB")), ("cprt", Text("No rights reserved")), ("wtpt", Xyz(0.9642, 1, 0.8249)),
            ("rXYZ", Xyz(0.43607, 0.22249, 0.01392)), ("gXYZ", Xyz(0.38515, 0.71687, 0.09708)), ("bXYZ", Xyz(0.14307, 0.06061, 0.71410)),
            ("rTRC", Curve()), ("gTRC", Curve()), ("bTRC", Curve()),
        ];
        var at = 128 + 4 + 12 * tags.Length;
        var bytes = new byte[at + tags.Sum(t => t.Data.Length)];
        UInt(bytes, 0, (uint)bytes.Length);
        UInt(bytes, 8, 0x04300000);
        Ascii(bytes, 12, "mntrRGB XYZ ");
        foreach (var (i, value) in new ushort[] { 2026, 1, 1, 0, 0, 0 }.Index()) BinaryPrimitives.WriteUInt16BigEndian(bytes.AsSpan(24 + 2 * i), value);
        Ascii(bytes, 36, "acsp");
        Xyz(0.9642, 1, 0.8249).AsSpan(8).CopyTo(bytes.AsSpan(68));
        UInt(bytes, 128, (uint)tags.Length);
        foreach (var (i, (tag, data)) in tags.Index())
        {
            Ascii(bytes, 132 + 12 * i, tag);
            UInt(bytes, 136 + 12 * i, (uint)at);
            UInt(bytes, 140 + 12 * i, (uint)data.Length);
            data.CopyTo(bytes, at);
            at += data.Length;
        }
        return bytes;
    }

    private static byte[] Xyz(params ReadOnlySpan<double> values)
    {
        var data = new byte[20];
        Ascii(data, 0, "XYZ ");
        for (var i = 0; i < values.Length; i++) Fixed(data, 8 + 4 * i, values[i]);
        return data;
    }

    private static byte[] Curve()
    {
        var data = new byte[32];
        Ascii(data, 0, "para");
        BinaryPrimitives.WriteUInt16BigEndian(data.AsSpan(8), 3);
        double[] numbers = [2.4, 1 / 1.055, 0.055 / 1.055, 1 / 12.92, 0.04045];
        for (var i = 0; i < numbers.Length; i++) Fixed(data, 12 + 4 * i, numbers[i]);
        return data;
    }

    private static byte[] Text(string text)
    {
        var words = Encoding.BigEndianUnicode.GetBytes(text);
        var data = new byte[(28 + words.Length + 3) / 4 * 4];
        Ascii(data, 0, "mluc");
        UInt(data, 8, 1);
        UInt(data, 12, 12);
        Ascii(data, 16, "enUS");
        UInt(data, 20, (uint)words.Length);
        UInt(data, 24, 28);
        words.CopyTo(data, 28);
        return data;
    }

    private static void Fixed(byte[] to, int at, double value) => BinaryPrimitives.WriteInt32BigEndian(to.AsSpan(at), (int)Math.Round(value * 65536));
    private static void UInt(byte[] to, int at, uint value) => BinaryPrimitives.WriteUInt32BigEndian(to.AsSpan(at), value);
    private static void Ascii(byte[] to, int at, string text) => Encoding.ASCII.GetBytes(text).CopyTo(to, at);
}
