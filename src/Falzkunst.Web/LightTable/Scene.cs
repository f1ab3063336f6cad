using System.Text.Json.Serialization;

namespace Falzkunst.Web.LightTable;

/// <summary>What a light table draws, in millimetres of the table, y down. Maps are six numbers as in SVG's matrix().</summary>
/// <param name="Head">The revision it shows.</param>
/// <param name="Inches">Lengths are shown in inches.</param>
/// <param name="Operations">How the lines of each operation are drawn, those that lie below first.</param>
/// <param name="Shapes">Path data of each shape's lines by the shape's hash.</param>
/// <param name="Pieces">The pieces by id; the items say where they lie.</param>
/// <param name="Layouts">Ways of laying the items out, such as spread and stacked; the first is shown first.</param>
public sealed record Scene(
    int Head,
    bool Inches,
    IReadOnlyList<SceneOperation> Operations,
    IReadOnlyDictionary<string, IReadOnlyList<string>> Shapes,
    IReadOnlyDictionary<string, ScenePiece> Pieces,
    IReadOnlyList<SceneLayout> Layouts)
{
    /// <summary>The scene without pieces, and shapes, that the page has in the very same form.</summary>
    /// <param name="have">Versions of the pieces that the page has.</param>
    public Scene Without(IReadOnlySet<string> have)
    {
        var pieces = Pieces.Where(p => !have.Contains(p.Value.Version)).ToDictionary();
        var shapes = pieces.Values.Select(p => p.Shape).ToHashSet();
        return this with { Pieces = pieces, Shapes = Shapes.Where(s => shapes.Contains(s.Key)).ToDictionary() };
    }
}

/// <summary>How the lines of an operation are drawn.</summary>
/// <param name="Word">Its word.</param>
/// <param name="Colour">Their colour where they have no ink of their own.</param>
public sealed record SceneOperation(string Word, string Colour);

/// <summary>One way of laying out.</summary>
/// <param name="Name">Such as "spread".</param>
/// <param name="Box">What a view of everything shows: min x, min y, max x, max y.</param>
/// <param name="Frames">Mats, sheets, cards: drawn first.</param>
/// <param name="Items">Pieces, lowest first.</param>
/// <param name="Loose">Lines on no piece.</param>
/// <param name="Pins">Findings with a place.</param>
public sealed record SceneLayout(
    string Name,
    double[] Box,
    IReadOnlyList<SceneFrame> Frames,
    IReadOnlyList<SceneItem> Items,
    IReadOnlyList<SceneLoose> Loose,
    IReadOnlyList<ScenePin> Pins)
{
    /// <summary>Courses of width through thin places, painted along the material.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public IReadOnlyList<SceneWidths>? Widths { get; init; }

    /// <summary>Printed pages, painted over the frames.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public IReadOnlyList<ScenePage>? Pages { get; init; }

    /// <summary>Of the pieces only what tools run is painted: their paper and print are on the pages.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool Bare { get; init; }

    /// <summary>Key of the stock whose pieces can be moved about by hand; null where nothing can.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? ByHand { get; init; }

    /// <summary>The width below which material is thin, mm.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public double? Least { get; init; }
}

/// <summary>A middle line: x, y and width of one corner after the other, mm.</summary>
public sealed record SceneWidths(double[] Line);

/// <summary>A rectangle under the pieces.</summary>
/// <param name="Kind">mat, sheet, border, card, fold, foil: where it is taped down, zone: what a mark keeps clear, printable: where a printer prints, or guide: the edge of the card under its pieces.</param>
/// <param name="Box">min x, min y, max x, max y.</param>
/// <param name="Fill">Colour of a sheet.</param>
/// <param name="Label">Words above it.</param>
/// <param name="Note">Words at its right.</param>
public sealed record SceneFrame(string Kind, double[] Box, string? Fill = null, string? Label = null, string? Note = null)
{
    /// <summary>Id of a sheet.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Sheet { get; init; }

    /// <summary>True outline of a sheet that is no rectangle, with its holes, as path data.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Path { get; init; }
}

/// <summary>A piece as it is drawn, wherever it lies.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Shape">Hash of its shape.</param>
/// <param name="Fill">Colour of its stock.</param>
/// <param name="Lines">What each path of the shape is.</param>
/// <param name="Scores">Scores that run otherwise than they were drawn: the paths as they run, by line id.</param>
/// <param name="Fills">Strokes that fill areas, and marks at holding bridges, by the id of the line they go with.</param>
/// <param name="Size">Width and height, mm, and how each reads in the user's units.</param>
/// <param name="Place">From the shape's coordinates to the card's.</param>
/// <param name="Locked">It cannot be moved by hand.</param>
public sealed record ScenePiece(
    string Name, string Shape, string Fill, IReadOnlyList<SceneLine> Lines, IReadOnlyDictionary<string, string> Scores, IReadOnlyDictionary<string, string> Fills,
    SceneSize Size, double[] Place, bool Locked)
{
    /// <summary>Left, top, width and height of all that is drawn of it, where that is more than its box.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public double[]? Reach { get; init; }

    /// <summary>What is printed on its face, lowest first.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public IReadOnlyList<ScenePrint>? Prints { get; init; }

    /// <summary>Short text that is the same for the same piece drawn the same way, and no other.</summary>
    public string Version { get; init; } = "";
}

/// <summary>Something printed on a piece, clipped to its paper: an area, strokes, or a picture.</summary>
public sealed record ScenePrint
{
    /// <summary>Path data of an area or of strokes.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Path { get; init; }

    /// <summary>Colour of the area.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Fill { get; init; }

    /// <summary>How the colour changes over the area.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public SceneShading? Shading { get; init; }

    /// <summary>The area is bounded by the even-odd rule.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool EvenOdd { get; init; }

    /// <summary>Colour of the strokes.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Stroke { get; init; }

    /// <summary>Their width, mm.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public double Width { get; init; }

    /// <summary>They end in half circles.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool Round { get; init; }

    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public ScenePicture? Picture { get; init; }
}

/// <summary>Colours that change from stop to stop: along x from 0 to 1 of a plane of its own, or from a focus to the circle of radius 1.</summary>
/// <param name="Map">From that plane to the piece.</param>
/// <param name="At">Where its stops are, 0 to 1.</param>
/// <param name="Colours">Their colours.</param>
/// <param name="Focus">x and y of the focus; null for a linear one.</param>
public sealed record SceneShading(double[] Map, double[] At, string[] Colours, [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] double[]? Focus);

/// <summary>A page of a PDF laid over the table where its sheet lies.</summary>
/// <param name="Src">Address of the PDF, which is another for every other page.</param>
/// <param name="Page">Number of the page in it, from 1.</param>
/// <param name="Box">min x, min y, max x, max y.</param>
public sealed record ScenePage(string Src, int Page, double[] Box);

/// <summary>A picture on a piece, clipped to its paper.</summary>
/// <param name="Src">Address of its dots, which is another for every other picture.</param>
/// <param name="Map">From its box to the piece.</param>
/// <param name="Width">Width of the box, mm.</param>
/// <param name="Height">Height of the box, mm.</param>
/// <param name="Pattern">It is repeated side by side.</param>
public sealed record ScenePicture(string Src, double[] Map, double Width, double Height, bool Pattern);

/// <summary>A piece at a place.</summary>
/// <param name="Piece">Id of the piece.</param>
/// <param name="Copy">Which copy, 1 unless on sheets.</param>
/// <param name="Map">From the shape's coordinates to the table's.</param>
public sealed record SceneItem(string Piece, int Copy, double[] Map)
{
    /// <summary>Id of the sheet it lies on.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Sheet { get; init; }

    /// <summary>It stays where it is on its sheet.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool Pinned { get; init; }

    /// <summary>Step of the plan and place in that pass for each line in its order, where the scene belongs to a run; null for lines that do not run.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public IReadOnlyList<int[]?>? Runs { get; init; }
}

/// <summary>Box of a piece in its own coordinates, and its measures in words.</summary>
public sealed record SceneSize(double X, double Y, double Width, double Height, string WidthText, string HeightText);

/// <summary>One line.</summary>
/// <param name="Id">Id within its piece.</param>
/// <param name="Operation">Word of its operation.</param>
/// <param name="Role">o outline, p opening, i inner.</param>
/// <param name="Ink">Colour of pen or foil.</param>
/// <param name="Mark">What is unusual about how it is worked: letters of v valley, m mountain, h half cut, b from the back, o left out, s size locked.</param>
/// <param name="Kind">Key of the kind of line that it is one of.</param>
public sealed record SceneLine(
    string Id,
    [property: JsonPropertyName("op")] string Operation,
    string Role,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Ink,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Mark = null,
    string Kind = "");

/// <summary>A line on no piece.</summary>
public sealed record SceneLoose(string Id, [property: JsonPropertyName("op")] string Operation, string Path, string? Ink);

/// <summary>A finding at its place.</summary>
public sealed record ScenePin(int Number, double X, double Y, string Severity, string Message, string? Piece)
{
    /// <summary>What it is measured against.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Note { get; init; }

    /// <summary>How far it reaches, mm, so that it can be shown whole.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public double? Reach { get; init; }
}
