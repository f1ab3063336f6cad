namespace Falzkunst.Formats.Svg;

/// <summary>An element of an SVG file, without its text.</summary>
internal sealed class SvgNode(string name, bool isSvg, SvgNode? parent, int line)
{
    private readonly Dictionary<string, string> _attributes = new(StringComparer.Ordinal);

    /// <summary>Local name.</summary>
    public string Name { get; } = name;

    /// <summary>It is in SVG's namespace, or in none.</summary>
    public bool IsSvg { get; } = isSvg;
    public SvgNode? Parent { get; } = parent;
    public int Line { get; } = line;
    public List<SvgNode> Children { get; } = [];
    public string Text { get; set; } = "";

    public string? this[string attribute] => _attributes.GetValueOrDefault(attribute);
    public string? Id => this["id"];
    public IEnumerable<KeyValuePair<string, string>> Attributes => _attributes;

    /// <summary>Attributes of SVG itself by name; of other namespaces by local name, where it is free.</summary>
    public void Add(string localName, bool foreign, string value)
    {
        if (foreign) _attributes.TryAdd(localName, value);
        else _attributes[localName] = value;
    }

    /// <summary>What a reference points to: "#name" gives "name"; null for none or for another file.</summary>
    public string? Reference => this["href"] is { Length: > 1 } href && href[0] == '#' ? href[1..] : null;

    /// <summary>The place for people, such as "line 12, path “star”".</summary>
    public string Place => Id is { Length: > 0 } id ? $"line {Line}, {Name} “{(id.Length > 40 ? id[..40] : id)}”" : $"line {Line}, {Name}";
}
