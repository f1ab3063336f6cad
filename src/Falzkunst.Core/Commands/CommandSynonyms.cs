using System.Collections.Immutable;

namespace Falzkunst.Core.Commands;

/// <summary>
/// Plain words that people say for what commands do. They are general words of English and of drawing, each with the commands it may
/// mean, the likeliest first.
/// </summary>
public static class CommandSynonyms
{
    private static readonly ImmutableDictionary<string, string[]> Meanings = new Dictionary<string, string[]>(StringComparer.OrdinalIgnoreCase)
    {
        ["join"] = ["unite", "join ends", "merge"],
        ["combine"] = ["unite", "subtract", "overlap", "merge"],
        ["fuse"] = ["unite"],
        ["intersect"] = ["overlap"],
        ["cutter"] = ["subtract"],
        ["clip"] = ["crop", "overlap"],
        ["names"] = ["list"],
        ["paint"] = ["print fill", "print line", "print ground"],
        ["overprint"] = ["bleed"],
        ["spill"] = ["bleed"],
        ["duplex"] = ["both sides"],
        ["twosided"] = ["both sides"],
        ["registration"] = ["print pages", "draw marks"],
        ["marks"] = ["print pages", "draw marks"],
        ["page"] = ["print pages"],
        ["printout"] = ["print pages"],
        ["printonly"] = ["cut only outside"],
        ["track"] = ["print line", "print over"],
        ["guests"] = ["list"],
        ["swash"] = ["form"],
        ["group"] = ["merge"],
        ["split"] = ["part", "take apart"],
        ["separate"] = ["part", "take apart"],
        ["ungroup"] = ["take apart"],
        ["break"] = ["take apart"],
        ["hole"] = ["merge", "take apart"],
        ["window"] = ["merge", "take apart"],
        ["outline"] = ["border", "edge line"],
        ["offset"] = ["border", "edge line"],
        ["outset"] = ["border", "shadow"],
        ["mat"] = ["border", "shadow"],
        ["frame"] = ["border", "frames"],
        ["inset"] = ["border", "edge line"],
        ["resize"] = ["size", "scale", "width", "height"],
        ["bigger"] = ["scale", "size"],
        ["smaller"] = ["scale", "size"],
        ["enlarge"] = ["scale", "size"],
        ["shrink"] = ["scale", "size"],
        ["stretch"] = ["width", "height"],
        ["flip"] = ["mirror"],
        ["reverse"] = ["mirror"],
        ["rotate"] = ["turn"],
        ["spin"] = ["turn"],
        ["copy"] = ["duplicate", "rows"],
        ["clone"] = ["duplicate"],
        ["repeat"] = ["rows", "around"],
        ["grid"] = ["rows"],
        ["circle"] = ["around", "draw ellipse"],
        ["oval"] = ["draw ellipse"],
        ["square"] = ["draw rectangle"],
        ["box"] = ["draw rectangle"],
        ["triangle"] = ["draw polygon"],
        ["hexagon"] = ["draw polygon"],
        ["doorway"] = ["draw arch"],
        ["dashed"] = ["perforate", "dash"],
        ["dotted"] = ["perforate", "aid"],
        ["tear"] = ["perforate"],
        ["crease"] = ["score", "fold valley"],
        ["fold"] = ["score", "fold valley", "fold mountain"],
        ["bend"] = ["score", "node"],
        ["pen"] = ["draw", "tip", "colour"],
        ["write"] = ["draw"],
        ["ink"] = ["colour"],
        ["gold"] = ["foil"],
        ["hot"] = ["foil"],
        ["relief"] = ["emboss"],
        ["guide"] = ["aid"],
        ["ruler"] = ["aid"],
        ["paper"] = ["stock"],
        ["card stock"] = ["stock"],
        ["cardstock"] = ["stock"],
        ["material"] = ["stock"],
        ["count"] = ["quantity"],
        ["how many"] = ["quantity", "cards"],
        ["amount"] = ["quantity"],
        ["rename"] = ["name"],
        ["remove"] = ["delete"],
        ["erase"] = ["delete"],
        ["front"] = ["layer"],
        ["back"] = ["layer", "from back"],
        ["order"] = ["layer"],
        ["raise"] = ["layer"],
        ["invisible"] = ["hide"],
        ["fix"] = ["lock"],
        ["protect"] = ["lock"],
        ["bolder"] = ["thicken"],
        ["bold"] = ["thicken"],
        ["thicker"] = ["thicken"],
        ["stronger"] = ["thicken"],
        ["strengthen"] = ["thicken"],
        ["clean"] = ["small things"],
        ["speck"] = ["small things"],
        ["dust"] = ["small things"],
        ["stencil"] = ["bridge"],
        ["tabs"] = ["bridge"],
        ["middle"] = ["centre"],
        ["center"] = ["centre"],
        ["arrange"] = ["align", "spread"],
        ["distribute"] = ["spread"],
        ["space"] = ["spread", "rows"],
        ["shade"] = ["fill"],
        ["hatch"] = ["fill"],
        ["colour in"] = ["fill"],
        ["pressure"] = ["settings"],
        ["force"] = ["settings"],
        ["speed"] = ["settings"],
        ["skip"] = ["leave out"],
        ["sticker"] = ["half cut"],
        ["point"] = ["node"],
        ["anchor"] = ["node"],
        ["version"] = ["keep aside", "take up"],
        ["variant"] = ["keep aside", "take up"],
        ["shorten"] = ["trim"],
        ["lengthen"] = ["draw out"],
        ["extend"] = ["draw out"],
        ["inches"] = ["units"],
        ["metric"] = ["units"],
        ["millimetres"] = ["units"],
        ["format"] = ["card"],
        ["background"] = ["base"],
        ["nest"] = ["put on sheets"],
        ["pack"] = ["put on sheets"],
        ["lettering"] = ["thicken", "draw"],
        ["text"] = ["draw"],
    }.ToImmutableDictionary(StringComparer.OrdinalIgnoreCase);

    /// <summary>The commands that a word may mean, the likeliest first; none where it is no such word.</summary>
    /// <param name="text">What was typed; its first two words, or its first, are looked up.</param>
    public static ImmutableArray<string> Meant(string text)
    {
        var words = text.Trim().Split(' ', StringSplitOptions.RemoveEmptyEntries);
        foreach (var take in new[] { 2, 1 })
        {
            if (words.Length >= take && Meanings.TryGetValue(string.Join(' ', words.Take(take)), out var meant)) return [.. meant];
        }
        return [];
    }

    /// <summary>The words by which a command is found besides its name.</summary>
    public static ImmutableArray<string> For(string command) => [.. Meanings.Where(m => m.Value.Contains(command)).Select(m => m.Key).Order(StringComparer.Ordinal)];

    /// <summary>Names that are written most like a word, the likeliest first: no farther than a third of its letters (Levenshtein 1966).</summary>
    public static ImmutableArray<string> Nearest(string word, IEnumerable<string> names)
    {
        var most = Math.Max(1, word.Length / 3);
        return [.. names.Distinct().Select(n => (Name: n, Steps: Steps(word.ToLowerInvariant(), n.Split(' ')[0]))).Where(n => n.Steps <= most).OrderBy(n => n.Steps).ThenBy(n => n.Name, StringComparer.Ordinal).Select(n => n.Name).Take(5)];
    }

    private static int Steps(string a, string b)
    {
        var row = Enumerable.Range(0, b.Length + 1).ToArray();
        for (var i = 1; i <= a.Length; i++)
        {
            var corner = row[0];
            row[0] = i;
            for (var k = 1; k <= b.Length; k++)
            {
                var next = Math.Min(Math.Min(row[k], row[k - 1]) + 1, corner + (a[i - 1] == b[k - 1] ? 0 : 1));
                (corner, row[k]) = (row[k], next);
            }
        }
        return row[^1];
    }
}
