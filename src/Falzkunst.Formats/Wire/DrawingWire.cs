using System.Collections.Immutable;
using System.IO;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Formats.Wire;

/// <summary>A drawing as bytes, exact to the last bit. What is read back is checked like a file.</summary>
internal static class DrawingWire
{
    /// <summary>No number of a drawing lies beyond this; readers leave out what does.</summary>
    private const double Farthest = 1e7;

    /// <summary>Groups around one shape; readers follow no deeper.</summary>
    private const int MostGroups = 512;

    public static void Write(BinaryWriter w, Drawing drawing)
    {
        w.Write(drawing.Width);
        w.Write(drawing.Height);
        w.Write(drawing.Images);
        w.Write(drawing.UnitsToInch ?? 0);
        Many(w, drawing.Shapes, Write);
        Many(w, drawing.Pictures, Write);
        Many(w, drawing.Notes, static (w, n) =>
        {
            w.Write(n.Code);
            w.Write(n.Message);
            w.Write(n.Where);
        });
    }

    /// <exception cref="InvalidDataException">It is no drawing, or more than readers may make.</exception>
    public static Drawing Read(BinaryReader r, BudgetLimits limits)
    {
        try
        {
            var segments = 0;
            var (width, height, images, units) = (Number(r), Number(r), r.ReadInt32(), Number(r));
            var shapes = Many(r, limits.Shapes, r => Shape(r, limits, ref segments));
            var pictures = Many(r, limits.Elements, Picture);
            var notes = Many(r, limits.Elements, static r => new ReadingNote(Said(r), Said(r), Said(r)));
            return new Drawing(width, height, shapes, images, notes) { Pictures = pictures, UnitsToInch = units > 0 ? units : null };
        }
        catch (Exception e) when (e is EndOfStreamException or FormatException or ArgumentException or OverflowException)
        {
            throw new InvalidDataException("The drawing did not arrive whole.", e);
        }
    }

    private static void Write(BinaryWriter w, DrawnShape shape)
    {
        Many(w, shape.Paths, Write);
        Write(w, shape.Appearance);
        Text(w, shape.Name);
        Many(w, shape.Groups, static (w, g) => w.Write(g));
        w.Write((sbyte)(shape.Declared is { } operation ? (int)operation : -1));
        w.Write(shape.Place);
        Many(w, shape.Within, static (w, g) => w.Write(g));
    }

    private static DrawnShape Shape(BinaryReader r, BudgetLimits limits, ref int segments)
    {
        var paths = ImmutableArray.CreateBuilder<Path>();
        for (var left = Count(r, limits.Segments); left > 0; left--) paths.Add(OnePath(r, limits, ref segments));
        var appearance = Look(r);
        var name = Text(r);
        var groups = Many(r, MostGroups, Said);
        var declared = r.ReadSByte();
        if (declared >= 0 && !Enum.IsDefined((Operation)declared)) throw new InvalidDataException("An operation that there is not.");
        return new DrawnShape(paths.ToImmutable(), appearance, name, groups, declared < 0 ? null : (Operation)declared, Said(r)) { Within = Many(r, MostGroups, static r => r.ReadInt32()) };
    }

    internal static void Write(BinaryWriter w, Path path)
    {
        Write(w, path.Start);
        w.Write(path.IsClosed);
        w.Write(path.Segments.Length);
        foreach (var s in path.Segments)
        {
            w.Write(s.IsCubic);
            if (s.IsCubic)
            {
                Write(w, s.Handle1);
                Write(w, s.Handle2);
            }
            Write(w, s.End);
        }
    }

    internal static Path OnePath(BinaryReader r, BudgetLimits limits, ref int segments)
    {
        var start = At(r);
        var closed = r.ReadBoolean();
        var count = Count(r, limits.Segments);
        segments += count;
        if (segments > limits.Segments) throw new InvalidDataException("More segments than are read.");
        var all = ImmutableArray.CreateBuilder<Segment>(count);
        for (var i = 0; i < count; i++) all.Add(r.ReadBoolean() ? Segment.Cubic(At(r), At(r), At(r)) : Segment.Straight(At(r)));
        return new Path(start, all.MoveToImmutable(), closed);
    }

    private static void Write(BinaryWriter w, Appearance a)
    {
        Text(w, a.Fill);
        w.Write(a.FillOpacity);
        w.Write(a.FillEvenOdd);
        Write(w, a.Shading);
        Text(w, a.Stroke);
        w.Write(a.StrokeOpacity);
        w.Write(a.StrokeWidth);
        w.Write(a.LineCap);
        w.Write(a.LineJoin);
        w.Write(a.MiterLimit);
        Many(w, a.Dashes, static (w, d) => w.Write(d));
        w.Write(a.DashOffset);
        w.Write(a.Opacity);
    }

    private static Appearance Look(BinaryReader r) => new()
    {
        Fill = Colour(r),
        FillOpacity = Number(r),
        FillEvenOdd = r.ReadBoolean(),
        Shading = Shaded(r),
        Stroke = Colour(r),
        StrokeOpacity = Number(r),
        StrokeWidth = Number(r),
        LineCap = Word(r, "butt", "round", "square"),
        LineJoin = Word(r, "miter", "round", "bevel"),
        MiterLimit = Number(r),
        Dashes = Many(r, 64, Number),
        DashOffset = Number(r),
        Opacity = Number(r),
    };

    private static void Write(BinaryWriter w, Shading? shading)
    {
        w.Write(shading is not null);
        if (shading is null) return;
        w.Write(shading.Kind == ShadingKind.Radial);
        Write(w, shading.Place);
        w.Write(shading.FocusX);
        w.Write(shading.FocusY);
        Many(w, shading.Stops, static (w, s) =>
        {
            w.Write(s.At);
            Text(w, s.Colour);
        });
    }

    private static Shading? Shaded(BinaryReader r)
    {
        if (!r.ReadBoolean()) return null;
        var (kind, place, x, y) = (r.ReadBoolean() ? ShadingKind.Radial : ShadingKind.Linear, Map(r), Number(r), Number(r));
        var stops = Many(r, Shading.MostStops, static r => new ShadingStop(Number(r), Colour(r) ?? throw new InvalidDataException("A stop of no colour.")));
        var isSane = stops.Length > 1 && stops[0].At >= 0 && stops[^1].At <= 1 && stops.Zip(stops.Skip(1)).All(s => s.First.At <= s.Second.At) && new Point(x, y).Length < 1 && Math.Abs(place.Determinant) > 0;
        return isSane ? new Shading(kind, place, stops) { FocusX = x, FocusY = y } : throw new InvalidDataException("A shading that is none.");
    }

    private static void Write(BinaryWriter w, Affine m)
    {
        foreach (var n in new[] { m.A, m.B, m.C, m.D, m.E, m.F }) w.Write(n);
    }

    private static Affine Map(BinaryReader r) => new(Number(r), Number(r), Number(r), Number(r), Number(r), Number(r));

    private static void Write(BinaryWriter w, DrawnPicture p)
    {
        w.Write(p.Content.Length);
        w.Write(p.Content);
        w.Write(p.MediaType);
        Write(w, p.Place);
        w.Write(p.Width);
        w.Write(p.Height);
        w.Write(p.Above);
        Text(w, p.Name);
        Many(w, p.Groups, static (w, g) => w.Write(g));
        w.Write(p.From);
    }

    private static DrawnPicture Picture(BinaryReader r)
    {
        var length = r.ReadInt32();
        if (length < 0 || length > r.BaseStream.Length - r.BaseStream.Position) throw new InvalidDataException("A picture that is not whole.");
        return new DrawnPicture(
            r.ReadBytes(length), Said(r), Map(r), Number(r), Number(r),
            r.ReadInt32(), Text(r), Many(r, MostGroups, Said), Said(r));
    }

    private static void Write(BinaryWriter w, Point p)
    {
        w.Write(p.X);
        w.Write(p.Y);
    }

    private static Point At(BinaryReader r) => new(Number(r), Number(r));

    internal static double Number(BinaryReader r) => r.ReadDouble() is var n && Math.Abs(n) <= Farthest ? n : throw new InvalidDataException("A number out of reach.");

    private static string Word(BinaryReader r, params ReadOnlySpan<string> known)
    {
        var word = Said(r);
        return known.Contains(word) ? word : throw new InvalidDataException("A word that there is not.");
    }

    private static string? Colour(BinaryReader r) => Text(r) is not { } colour ? null
        : colour.Length == 7 && colour[0] == '#' && colour.Skip(1).All(char.IsAsciiHexDigit) ? colour
        : throw new InvalidDataException("A colour that is none.");

    private static void Text(BinaryWriter w, string? text)
    {
        w.Write(text is not null);
        if (text is not null) w.Write(text);
    }

    /// <summary>No text of a drawing is longer: readers cut names off.</summary>
    private const int LongestText = 1000;

    internal static string Said(BinaryReader r) => r.ReadString() is { Length: <= LongestText } text ? text : throw new InvalidDataException("A text that is too long.");

    private static string? Text(BinaryReader r) => r.ReadBoolean() ? Said(r) : null;

    internal static void Many<T>(BinaryWriter w, ImmutableArray<T> all, Action<BinaryWriter, T> write)
    {
        w.Write(all.Length);
        foreach (var one in all) write(w, one);
    }

    internal static ImmutableArray<T> Many<T>(BinaryReader r, int most, Func<BinaryReader, T> read)
    {
        var count = Count(r, most);
        var all = ImmutableArray.CreateBuilder<T>(Math.Min(count, 4096));
        for (var i = 0; i < count; i++) all.Add(read(r));
        return all.DrainToImmutable();
    }

    /// <summary>A count that what is left can hold, each thing taking a byte at least.</summary>
    private static int Count(BinaryReader r, int most) =>
        r.ReadInt32() is var count && count >= 0 && count <= most && count <= r.BaseStream.Length - r.BaseStream.Position ? count
        : throw new InvalidDataException("More of something than is read.");
}
