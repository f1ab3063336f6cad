using System.Collections.Immutable;
using System.Text;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Texts;

namespace Falzkunst.Formats.Svg;

/// <summary>
/// Text of a file as outlines (SVG 2, chapter 11, as far as drawings use it): runs in the styles of their spans, placed by x, y, dx and dy,
/// anchored chunk by chunk. Positions for single letters are taken; text along a path stands straight, which is noted.
/// </summary>
internal sealed class SvgWords(SvgStyles styles, ITextFaces faces, Budget budget, NoteList notes, double width, double height)
{
    private const int MostCharacters = 20_000;
    private const int WorkOfCharacter = 400;

    private readonly List<Run> _runs = [];
    private readonly StringBuilder _collected = new();
    private (double X, double Y) _pen;
    private bool _endsInBlank = true;
    private int _characters;

    /// <summary>Words in one style from one place on; one that begins a chunk has its place given and does not follow the run before.</summary>
    private sealed record Run(string Words, SvgStyle Style, bool Begins, double X, double Y, double Dx, double Dy);

    /// <summary>The letters of a text element in its own coordinates, run by run.</summary>
    public IEnumerable<(ImmutableArray<Path> Letters, SvgStyle Style)> Set(SvgNode node, SvgStyle style)
    {
        Collect(node, style, depth: 0);
        var families = new SortedSet<string>(StringComparer.Ordinal);
        var names = new SortedSet<string>(StringComparer.Ordinal);
        var missing = new List<string>();
        var set = new List<(ImmutableArray<Path>, SvgStyle)>();
        for (var first = 0; first < _runs.Count;)
        {
            var last = first + 1;
            while (last < _runs.Count && !_runs[last].Begins) last++;
            set.AddRange(Chunk(_runs.GetRange(first, last - first), families, names, missing));
            first = last;
        }
        if (set.Count > 0)
        {
            var asked = families.Count == 0 ? "" : $", the nearest at hand to “{ShownText.Clean(string.Join(", ", families), 60)}”";
            notes.Add(new ReadingNote("text", $"Text was set in {string.Join(" and ", names)}{asked}, and is drawn unless its layer says otherwise.", node.Place));
        }
        if (missing.Count > 0) notes.Add(new ReadingNote("text-letters", $"The face has no {ShownText.Clean(string.Join(' ', missing.Distinct()), 40)}; nothing stands there.", node.Place));
        return set;
    }

    private void Collect(SvgNode node, SvgStyle style, int depth)
    {
        budget.Deep(depth);
        if (node.Name == "textPath") notes.Add(new ReadingNote("text-path", "Text along a path was set straight.", node.Place));
        var (xs, ys) = (Positions(node["x"], width), Positions(node["y"], height));
        var (dx, dy) = (Positions(node["dx"], width), Positions(node["dy"], height));
        var at = 0;
        foreach (var child in node.Children)
        {
            if (child.Name == SvgNode.Written)
            {
                foreach (var part in Parts(Collapsed(child.Text), Math.Max(xs.Count, ys.Count)))
                {
                    // A single position begins one chunk; a list of them places letter by letter for as long as it lasts.
                    var begins = at == 0 ? xs.Count > 0 || ys.Count > 0 || node.Name == "text" : at < xs.Count || at < ys.Count;
                    if (at < xs.Count) _pen.X = xs[at];
                    if (at < ys.Count) _pen.Y = ys[at];
                    _runs.Add(new Run(part, style, begins, _pen.X, _pen.Y, at < dx.Count ? dx[at] : 0, at < dy.Count ? dy[at] : 0));
                    at += part.Length;
                }
            }
            else if (child is { IsSvg: true, Name: "tspan" or "a" or "textPath" })
            {
                var own = styles.Compute(child, style, width);
                if (own.Displayed) Collect(child, own, depth + 1);
                at = Math.Max(at, 1);
            }
        }
    }

    /// <summary>Words letter by letter for as long as positions last, the rest in one.</summary>
    private static IEnumerable<string> Parts(string words, int positions)
    {
        var single = positions > 1 ? Math.Min(positions - 1, words.Length) : 0;
        for (var i = 0; i < single; i++) yield return words.Substring(i, 1);
        if (single < words.Length) yield return words[single..];
    }

    /// <summary>Blanks as SVG collapses them: one for many, none at the beginning.</summary>
    private string Collapsed(string text)
    {
        _collected.Clear();
        foreach (var c in text)
        {
            if (++_characters > MostCharacters) throw new BudgetSpent(BudgetPart.Work, MostCharacters);
            var isBlank = c is ' ' or '\t' or '\n' or '\r';
            if (isBlank && _endsInBlank) continue;
            _collected.Append(isBlank ? ' ' : c);
            _endsInBlank = isBlank;
        }
        return _collected.ToString();
    }

    private static List<double> Positions(string? text, double whole) => text is null or { Length: > 40_000 } ? []
        : [.. text.Split([' ', ',', '\t', '\n', '\r'], StringSplitOptions.RemoveEmptyEntries).Select(p => SvgLength.Read(p, whole)).TakeWhile(p => p is not null).Select(p => p!.Value)];

    private List<(ImmutableArray<Path>, SvgStyle)> Chunk(List<Run> runs, SortedSet<string> families, SortedSet<string> names, List<string> missing)
    {
        var placed = new List<(List<ImmutableArray<Path>> Letters, SvgStyle Style)>();
        var (x, y) = (runs[0].X, runs[0].Y);
        foreach (var run in runs)
        {
            budget.Work(WorkOfCharacter * (long)run.Words.Length);
            (x, y) = (x + run.Dx, y + run.Dy);
            var (shaped, name, capitals) = faces.Set(run.Style.FontFamily, run.Style.FontWeight, run.Words);
            missing.AddRange(shaped.Missing);
            var capital = run.Style.FontSize * capitals;
            var set = TextSetting.InBox(shaped, run.Words, new TextStyle(capital));
            // The box's upper left corner lies a capital height above the baseline.
            var there = Affine.Move(x, y - capital);
            var letters = Letters.Placed(shaped, set).Select(l => l.Select(p => p.Map(there)).ToImmutableArray()).ToList();
            x += shaped.Paragraphs.Sum(p => p.Glyphs.Sum(g => g.Advance)) * capital;
            if (letters.Count == 0) continue;
            names.Add(name);
            if (run.Style.FontFamily.Length > 0) families.Add(run.Style.FontFamily.Split(',')[0].Trim('"', '\'', ' '));
            placed.Add((letters, run.Style));
        }
        var shift = runs[0].Style.TextAnchor switch { "middle" => -(x - runs[0].X) / 2, "end" => -(x - runs[0].X), _ => 0 };
        _pen = (x + shift, y);
        return [.. placed.Select(p => (Outlines(p.Letters, Affine.Move(shift, 0)), p.Style))];
    }

    private static ImmutableArray<Path> Outlines(List<ImmutableArray<Path>> letters, Affine shift)
    {
        var moved = letters.Select(l => l.Select(p => p.Map(shift)).ToImmutableArray()).ToList();
        return Letters.AsOne(moved);
    }
}
