using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Dxf;

/// <summary>One entity: its kind and its pairs, with the entities that follow it up to its end (vertices of an old polyline).</summary>
internal sealed class DxfEntity(string kind, int line)
{
    private readonly List<DxfTag> _tags = [];

    public string Kind { get; } = kind;
    public int Line { get; } = line;
    public IReadOnlyList<DxfTag> Tags => _tags;
    public List<DxfEntity> Parts { get; } = [];
    public string Place => $"line {Line}, {ShownText.Clean(Kind, 40)}";

    public void Add(DxfTag tag) => _tags.Add(tag);

    public DxfTag? Find(int code)
    {
        foreach (var tag in _tags)
        {
            if (tag.Code == code) return tag;
        }
        return null;
    }

    public double Number(int code, double otherwise = 0) => Find(code)?.Number ?? otherwise;
    public int Integer(int code, int otherwise = 0) => Find(code)?.Integer ?? otherwise;
    public string Text(int code, string otherwise = "") => Find(code)?.Value ?? otherwise;
    public Point Point(int code) => new(Number(code), Number(code + 10));

    /// <summary>All points under a code, such as the control points of a spline.</summary>
    public List<Point> Points(int code)
    {
        var points = new List<Point>();
        for (var i = 0; i < _tags.Count; i++)
        {
            if (_tags[i].Code == code) points.Add(new Point(_tags[i].Number, i + 1 < _tags.Count && _tags[i + 1].Code == code + 10 ? _tags[i + 1].Number : 0));
        }
        return points;
    }

    public List<double> Numbers(int code) => [.. _tags.Where(t => t.Code == code).Select(t => t.Number)];
}
