using Falzkunst.Core.Texts;
using Falzkunst.Formats.Fonts;
using Falzkunst.Formats.Svg;

namespace Falzkunst.Formats;

/// <summary>The faces that ship, for text in drawings: the nearest by what the name of a family says of its kind.</summary>
internal sealed class ArtFaces : ITextFaces
{
    public static readonly ArtFaces Instance = new();

    private const int Heavy = 800;

    /// <summary>Words in names of families and the face that comes nearest; the first that is met decides.</summary>
    private static readonly (string[] Words, string Face)[] Kinds =
    [
        (["stencil"], "stencil"),
        (["slab", "typewriter", "egyptian"], "slab"),
        (["brush"], "brush"),
        (["script", "cursive", "callig", "chancery", "wedding"], "quill"),
        (["hand", "note", "comic", "marker"], "note"),
        (["round"], "round"),
        (["display", "poster", "black", "condensed", "fantasy"], "poster"),
        (["sans", "grotesk", "grotesque", "gothic", "mono"], "plain"),
        (["serif", "roman", "times", "georgia", "garamond", "book", "antiqua"], "book"),
    ];

    private readonly FaceShelf _shelf = new();

    public (ShapedText Shaped, string Name, double CapitalsOfEm) Set(string families, int weight, string words)
    {
        var key = KeyFor(families, weight);
        var face = _shelf.Find(key) ?? throw new InvalidOperationException($"The face {key} does not ship.");
        return (face.Shape(words), FaceShelf.Shipped.Single(f => f.Key == key).Name, face.CapitalUnits / face.EmUnits);
    }

    private static string KeyFor(string families, int weight)
    {
        foreach (var family in families.ToLowerInvariant().Split(','))
        {
            foreach (var (words, face) in Kinds)
            {
                if (Array.Exists(words, w => family.Contains(w, StringComparison.Ordinal))) return face;
            }
        }
        return weight >= Heavy ? "poster" : "plain";
    }
}
