using System.Collections.Concurrent;
using System.Collections.Immutable;
using Falzkunst.Core.Texts;

namespace Falzkunst.Formats.Fonts;

/// <summary>The faces that ship, each read when it is first asked for and kept; safe for threads.</summary>
public sealed class FaceShelf : IFaces
{
    /// <summary>The faces that ship; their files are named by their keys.</summary>
    public static readonly ImmutableArray<FaceName> Shipped =
    [
        new("plain", "Plain", FaceKind.Plain), new("open", "Open", FaceKind.Plain), new("book", "Book", FaceKind.Serif), new("slab", "Slab", FaceKind.Slab),
        new("round", "Round", FaceKind.Rounded), new("ribbon", "Ribbon", FaceKind.Script), new("quill", "Quill", FaceKind.Script),
        new("garland", "Garland", FaceKind.Script), new("brush", "Brush", FaceKind.Script), new("marker", "Marker", FaceKind.Script),
        new("poster", "Poster", FaceKind.Display), new("sign", "Sign", FaceKind.Display), new("note", "Note", FaceKind.Hand), new("stencil", "Stencil", FaceKind.Stencil),
        new("line-plain", "Line plain", FaceKind.SingleLine), new("line-slanted", "Line slanted", FaceKind.SingleLine), new("line-narrow", "Line narrow", FaceKind.SingleLine),
        new("line-round", "Line round", FaceKind.SingleLine), new("line-round-slanted", "Line round slanted", FaceKind.SingleLine),
        new("line-square", "Line square", FaceKind.SingleLine), new("line-quick", "Line quick", FaceKind.SingleLine), new("line-tall", "Line tall", FaceKind.SingleLine),
        new("line-ribbon", "Line ribbon", FaceKind.SingleLine), new("line-simple", "Line simple", FaceKind.SingleLine), new("line-school", "Line school", FaceKind.SingleLine),
    ];

    private static readonly string Folder = System.IO.Path.Combine(AppContext.BaseDirectory, "Faces");

    private readonly ConcurrentDictionary<string, Lazy<Face>> _faces = new(StringComparer.Ordinal);

    public ImmutableArray<FaceName> All => Shipped;

    public ShapedText? Shape(string face, string words, params IReadOnlyList<string> forms) => Find(face)?.Shape(words, forms);

    public ImmutableArray<string> FormsOf(string face) => Find(face)?.Forms ?? [];

    /// <summary>The face of that key; null where none ships under it.</summary>
    public Face? Find(string key)
    {
        if (!Shipped.Any(f => f.Key == key)) return null;
        return _faces.GetOrAdd(key, k => new Lazy<Face>(() =>
        {
            var file = Shipped.Single(f => f.Key == k).Kind == FaceKind.SingleLine ? $"{k}.svg" : $"{k}.ttf";
            return FaceFile.Read(System.IO.File.ReadAllBytes(System.IO.Path.Combine(Folder, file)));
        })).Value;
    }
}
