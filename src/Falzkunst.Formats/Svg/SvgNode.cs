namespace Falzkunst.Formats.Svg;

/// <summary>An element of an SVG file; what is written in a text element stands among its children as elements called <see cref="Written"/>.</summary>
internal sealed class SvgNode(string name, bool isSvg, SvgNode? parent, int line)
{
    private static readonly char[] Blanks = [' ', '\t', '\r', '\n', '\f'];
    private readonly Dictionary<string, string> _attributes = new(StringComparer.Ordinal);
    private HashSet<string>? _classes;

    /// <summary>Local name.</summary>
    public string Name { get; } = name;

    /// <summary>It is in SVG's namespace, or in none.</summary>
    public bool IsSvg { get; } = isSvg;
    public SvgNode? Parent { get; } = parent;
    public int Line { get; } = line;
    public List<SvgNode> Children { get; } = [];
    public string Text { get; set; } = "";

    /// <summary>Name of an element that is nothing but text.</summary>
    public const string Written = "#text";

    public string? this[string attribute] => _attributes.GetValueOrDefault(attribute);
    public string? Id => this["id"];
    public IEnumerable<KeyValuePair<string, string>> Attributes => _attributes;

    /// <summary>Its classes; an element carries few, those beyond some hundred are not looked at.</summary>
    public IReadOnlySet<string> Classes => _classes ??= this["class"] is { } text ? text.Split(Blanks, MostClasses, StringSplitOptions.RemoveEmptyEntries).ToHashSet(StringComparer.Ordinal) : NoClasses;

    private const int MostClasses = 200;
    private static readonly HashSet<string> NoClasses = [];

    /// <summary>What people and pieces call it: its label or id, at most so long and without what does not show.</summary>
    public string? Called => (this["label"] ?? Id) is { } name ? ShownText.Clean(name) : null;

    /// <summary>Attributes of SVG itself by name; of other namespaces by local name, where it is free.</summary>
    public void Add(string localName, bool foreign, string value)
    {
        if (foreign) _attributes.TryAdd(localName, value);
        else _attributes[localName] = value;
    }

    /// <summary>What a reference points to: "#name" gives "name"; null for none or for another file.</summary>
    public string? Reference => this["href"] is { Length: > 1 } href && href[0] == '#' ? href[1..] : null;

    /// <summary>The place for people, such as "line 12, path “star”".</summary>
    public string Place => Id is { Length: > 0 } id ? $"line {Line}, {ShownText.Clean(Name, 40)} “{ShownText.Clean(id, 40)}”" : $"line {Line}, {ShownText.Clean(Name, 40)}";
}
