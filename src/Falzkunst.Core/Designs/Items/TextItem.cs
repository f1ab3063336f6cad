using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using System.Text.Json.Serialization;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Texts;

namespace Falzkunst.Core.Designs;

/// <summary>
/// Words that stay words: lines follow from them, from how they are set, and where they follow something from that. They keep what
/// their face made of them (<see cref="ShapedText"/>), so that they look the same where that face is not at hand.
/// </summary>
/// <param name="Id">Id of the item.</param>
/// <param name="Words">The text; lines are parted by line feeds.</param>
/// <param name="Face">Key of the face.</param>
/// <param name="CapitalMm">Height of capital letters before <paramref name="Place"/>, mm.</param>
/// <param name="Operation">What a tool does along its letters.</param>
/// <param name="Ink">Colour of pen or foil as #rrggbb; null for other operations.</param>
/// <param name="Place">From the text's box, its upper left corner at 0, 0, to the piece.</param>
public sealed record TextItem(
    string Id, string Words, string Face, double CapitalMm, Operation Operation, string? Ink, Affine Place) : WorkedItem(Id, Operation, Ink)
{
    /// <summary>Limits of the height of capital letters, mm.</summary>
    public const double LeastMm = 0.5, MostMm = 600;

    /// <summary>Limits of what is added between letters, in thousandths of the capital height.</summary>
    public const int LeastSpacing = -800, MostSpacing = 5000;

    /// <summary>Limits from baseline to baseline, in capital heights.</summary>
    public const double LeastLines = 0.4, MostLines = 20;

    public const int MostCharacters = 2000;

    /// <summary>Segments of its letters, each letter counted once; ornamental capitals have some hundreds, and a thousand are kept in 70 kB.</summary>
    public const int MostSegments = 40_000;

    /// <summary>Segments of its letters as they stand; as many characters as it may have take 60,000 in a plain face.</summary>
    public const int MostPlacedSegments = 200_000;

    public TextAlign Align { get; init; }

    /// <summary>Added between letters, in thousandths of the capital height.</summary>
    public int LetterSpacing { get; init; }

    /// <summary>From baseline to baseline, in capital heights.</summary>
    public double LineSpacing { get; init; } = TextStyle.UsualLineSpacing;

    /// <summary>Lines are broken to fit this width, mm; null for as wide as they are.</summary>
    public double? BoxWidthMm { get; init; }

    /// <summary>The box is as wide as the piece but for this at either side, mm, and stays so; null for a box of its own.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public double? InsidePieceMm { get; init; }

    /// <summary>Stands along a line; null for straight lines in a box.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public TextAlong? Along { get; init; }

    /// <summary>It is turned and mirrored with its piece, but not scaled.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool SizeLocked { get; init; }

    /// <summary>Of a box that follows the piece: only the panel between two folds, counted from the left, 0 first; null for all of the piece.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public int? Panel { get; init; }

    /// <summary>Lines that do not fit their box are not broken: all become smaller until they do.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool Shrinks { get; init; }

    /// <summary>Its letters are the piece itself, and no lines on it; they are shown as an aid.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool IsShape { get; init; }

    /// <summary>Forms of letters that were chosen beyond the usual ones, as tags of OpenType features such as "swsh".</summary>
    public ImmutableArray<string> Forms { get; init; } = [];

    /// <summary>What its face made of its words; null until it was asked.</summary>
    public ShapedText? Shaped { get; init; }

    /// <summary>Its words with the values of the row that takes most room, which is what is shown; null where it has no fields.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Filled { get; init; }

    /// <summary>What its face made of the words of all rows of the piece's list, one after the other; null where it has no fields.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public ShapedText? Rows { get; init; }

    /// <summary>The words that are shown.</summary>
    [JsonIgnore]
    public string Shown => Filled ?? Words;

    /// <summary>A face makes the same of both: words, face and forms are the same, and the rest says how what is shaped is set.</summary>
    public bool IsShapedAs(TextItem other) => Words == other.Words && Face == other.Face && Forms.AsSpan().SequenceEqual(other.Forms.AsSpan());

    /// <summary>The text with the values of one row.</summary>
    /// <param name="list">The piece's list.</param>
    /// <param name="at">Index of the row.</param>
    public TextItem ForRow(NameList list, int at)
    {
        if (Rows is not { } rows) return this;
        // Values have no line feeds, so that each row has as many paragraphs as the words.
        var each = Words.Split('\n').Length;
        var row = this with { Words = list.Fill(Words, list.Rows[at]), Filled = null, Rows = null, Shaped = rows with { Paragraphs = [.. rows.Paragraphs.Skip(at * each).Take(each)] } };
        if (Shaped is null || IsBoxed || Align == TextAlign.Left || Along is { Line: not null }) return row;
        // Rows stand about the same middle, or to the same edge, as the one that is shown.
        var room = WidthOfLines - row.WidthOfLines;
        return row with { Place = Affine.Move(Align == TextAlign.Centre ? room / 2 : room, 0).Then(Place) };
    }

    /// <summary>It has a width of its own or its piece's, and is not just as wide as its lines.</summary>
    [JsonIgnore]
    public bool IsBoxed => BoxWidthMm is not null || InsidePieceMm is not null;

    /// <summary>How wide the widest of its lines is where none is broken, before <see cref="Place"/>, mm.</summary>
    [JsonIgnore]
    public double WidthOfLines => Shaped is null ? 0 : TextSetting.InBox(Shaped, Shown, Style with { BoxWidthMm = null }).Width;

    /// <summary>The first words, in one line.</summary>
    /// <param name="most">Characters, the sign for more included.</param>
    public string Brief(int most)
    {
        var line = Words.ReplaceLineEndings(" ");
        return line.Length <= most ? line : line[..(most - 1)].TrimEnd() + "…";
    }

    private static readonly ConditionalWeakTable<TextItem, Found> Known = [];

    /// <summary>What was found, and for which outline and line.</summary>
    private sealed record Found((double Left, double Right)? Room, Path? Along, SetText Set, ImmutableArray<Path> Paths);

    [JsonIgnore]
    public override Look SeenAs => Look.DrawnHere;

    /// <summary>Along a line of the piece it stands where that runs.</summary>
    [JsonIgnore]
    public override bool StandsFree => Along?.Line is null;

    /// <summary>How it is set in a box of its own.</summary>
    [JsonIgnore]
    public TextStyle Style => new(CapitalMm, Align, LetterSpacing, LineSpacing, BoxWidthMm) { Shrinks = Shrinks };

    public override Item Under(Affine map) => this with { Place = Place.Then(SizeLocked ? map.KeepingSizeAt(Place.Apply(new Point(0, 0))) : map) };

    public override ImmutableArray<Line> LinesOn(Piece piece) =>
        [.. Find(piece).Paths.Select(path => new Line(Id, path, IsShape ? Operation.Aid : Operation, SeenAs, Shown.Split('\n')[0], Ink) { Settings = IsShape ? null : Settings })];

    /// <summary>How it is set on its piece; in the coordinates of its box, along a line in those of the piece.</summary>
    public SetText SetOn(Piece piece) => Find(piece).Set;

    /// <summary>The outlines or strokes of its letters on its piece; outlines that overlap are one.</summary>
    public ImmutableArray<Path> PathsOn(Piece piece) => Find(piece).Paths;

    /// <summary>From the coordinates of <see cref="SetOn"/> to the piece.</summary>
    public Affine PlaceOn(Piece piece)
    {
        if (Along is { Line: not null } && LineFor(piece) is not null) return Affine.Identity;
        return RoomOn(piece) is { } room ? Place.Then(Affine.Move(room.Left - Place.E, 0)) : Place;
    }

    /// <summary>Between which places of the piece its box reaches, where it follows the piece.</summary>
    private (double Left, double Right)? RoomOn(Piece piece)
    {
        if (InsidePieceMm is not { } inside) return null;
        var (left, right) = Panels.On(piece) is var panels && Panel is { } number ? panels[Math.Clamp(number, 0, panels.Length - 1)] : (piece.Size.MinX, piece.Size.MaxX);
        return (left + inside, right - inside);
    }

    private Found Find(Piece piece)
    {
        var room = RoomOn(piece);
        var line = LineFor(piece);
        if (Known.TryGetValue(this, out var found) && found.Room == room && (Equals(found.Along, line) || Along is { Line: null })) return found;
        found = Compute(piece, room, line);
        Known.AddOrUpdate(this, found);
        return found;
    }

    private Found Compute(Piece piece, (double Left, double Right)? room, Path? line)
    {
        if (Shaped is not { } shaped) return new Found(room, line, new SetText([], [], 0, 0, false), []);
        // Along a line of the piece it stands in the piece's coordinates, as large as it has become there.
        var style = line is not null && Along is { Line: not null } ? Style with { CapitalMm = CapitalMm * Place.MeanScale }
            : room is var (left, right) ? Style with { BoxWidthMm = Math.Max(1, right - left) / Place.MeanScale } : Style;
        var set = line is null ? TextSetting.InBox(shaped, Shown, style) : TextSetting.Along(shaped, Shown, style, line, Along!.OffsetMm);
        var place = PlaceOn(piece);
        var letters = Letters.Placed(shaped, set).Select(l => l.Select(p => p.Map(place)).ToImmutableArray()).ToList();
        try
        {
            return new Found(room, line, set, shaped.IsStroke ? [.. letters.SelectMany(l => l)] : Letters.AsOne(letters));
        }
        catch (BudgetSpent)
        {
            // Letters that cross themselves so often are no letters that a tool could follow.
            return new Found(room, line, set, []);
        }
    }

    /// <summary>The line that it stands along: one of the piece, or an arc of its own in the coordinates of its box.</summary>
    private Path? LineFor(Piece piece) => Along switch
    {
        null => null,
        // Among the lines that are drawn, and not those that follow: what follows is asked for while this is.
        { Line: { } id } along => (piece.Outline.Id == id ? piece.Outline : piece.Items.OfType<Line>().FirstOrDefault(l => l.Id == id))?.Path is { } path ? along.Reversed ? path.Reversed() : path : null,
        var along => along.Arc(WidthOfLines, CapitalMm),
    };
}

/// <summary>A line that words stand along.</summary>
/// <param name="Line">Id of a line of the same piece; null for an arc.</param>
/// <param name="ArcDegrees">How far round the words go on an arc; above 0 they bulge upwards, below 0 downwards.</param>
/// <param name="OffsetMm">How far above the line they stand.</param>
/// <param name="Reversed">They run the other way along it, and so stand on its other side.</param>
public sealed record TextAlong(string? Line, double ArcDegrees = 0, double OffsetMm = 0, bool Reversed = false)
{
    /// <summary>A circle all round, degrees.</summary>
    public const double MostDegrees = 360;

    /// <summary>An arc as long as the words, its middle where the middle of the straight baseline would be.</summary>
    internal Path Arc(double width, double capital)
    {
        var turn = ArcDegrees * Math.PI / 180;
        if (Math.Abs(turn) < 1e-6 || width <= 0) return Path.Polyline([new(0, capital), new(Math.Max(width, 1e-6), capital)], closed: false);
        var radius = width / Math.Abs(turn);
        var up = Math.Sign(turn);
        var centre = new Point(width / 2, capital + up * radius);
        // Cubics of at most an eighth of a circle each stray by less than a millionth of the radius.
        var steps = Math.Max(1, (int)Math.Ceiling(Math.Abs(turn) / (Math.PI / 4)));
        var step = turn / steps;
        var handle = 4.0 / 3 * Math.Tan(Math.Abs(step) / 4) * radius;
        Point At(double a) => centre + new Point(Math.Sin(a) * radius * up, -Math.Cos(a) * radius * up);
        Point Way(double a) => new(Math.Cos(a), Math.Sin(a));
        var from = -turn / 2;
        var segments = Enumerable.Range(0, steps).Select(i =>
        {
            var (a, b) = (from + i * step, from + (i + 1) * step);
            return Segment.Cubic(At(a) + Way(a) * handle, At(b) - Way(b) * handle, At(b));
        });
        return new Path(At(from), [.. segments], closed: false);
    }
}
