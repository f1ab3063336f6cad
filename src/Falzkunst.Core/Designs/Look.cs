using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>What one sees of a line in the file it came from; lines of one look are one kind.</summary>
/// <param name="Stroke">Stroke colour #rrggbb, null without one.</param>
/// <param name="Fill">Fill colour #rrggbb, null without one.</param>
/// <param name="Dashed">The stroke is broken by gaps.</param>
/// <param name="Closed">The line ends where it begins.</param>
/// <param name="Layer">Innermost named group it lies in, null without one.</param>
public sealed record Look(string? Stroke, string? Fill, bool Dashed, bool Closed, string? Layer)
{
    /// <summary>The look of closed and of open lines that were drawn here, and so say nothing of the next file.</summary>
    public static readonly Look DrawnHere = new(null, null, false, true, null);

    public bool IsDrawnHere => (this with { Closed = true }) == DrawnHere;

    public static Look FromShape(DrawnShape shape, Path path) => new(
        shape.Appearance.Stroke,
        shape.Appearance.Fill,
        shape.Appearance.IsDashed,
        path.IsClosed,
        shape.Groups.IsEmpty ? null : shape.Groups[^1]);

    /// <summary>The look in words, such as "blue dashed open lines in layer folds".</summary>
    public string InWords()
    {
        var words = new List<string>();
        if (Stroke is not null) words.Add(ColourWords.Name(Stroke));
        if (Dashed) words.Add("dashed");
        words.Add(Closed ? "closed lines" : "open lines");
        if (Fill is not null) words.Add($"filled {ColourWords.Name(Fill)}");
        if (Layer is not null) words.Add($"in layer “{Layer}”");
        var text = string.Join(' ', words);
        return char.ToUpperInvariant(text[0]) + text[1..];
    }
}
