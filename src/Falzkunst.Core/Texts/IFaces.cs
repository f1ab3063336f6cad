using System.Collections.Immutable;

namespace Falzkunst.Core.Texts;

/// <summary>How a face looks, as people ask for it.</summary>
public enum FaceKind
{
    Plain,
    Serif,
    Slab,
    Rounded,
    Script,
    Display,
    Hand,
    Stencil,

    /// <summary>One stroke, for pens, foil and embossing.</summary>
    SingleLine,
}

/// <summary>A face at hand.</summary>
/// <param name="Key">Short stable name, lower case with hyphens.</param>
/// <param name="Name">Name for people.</param>
/// <param name="Kind">How it looks.</param>
public sealed record FaceName(string Key, string Name, FaceKind Kind)
{
    /// <summary>A user brought it in; it belongs to the workshop.</summary>
    public bool IsOwn { get; init; }
}

/// <summary>Faces at hand, and what they make of words. Reading faces is no work of the core: it is given one of these.</summary>
public interface IFaces
{
    /// <summary>The faces, in the order that they are offered in.</summary>
    ImmutableArray<FaceName> All { get; }

    /// <summary>Shapes words; null where no face has that key.</summary>
    /// <param name="face">Key of the face.</param>
    /// <param name="words">The words; lines are parted by line feeds.</param>
    /// <param name="forms">Forms of letters beyond the usual ones, as tags of OpenType features; those that the face lacks change nothing.</param>
    ShapedText? Shape(string face, string words, params IReadOnlyList<string> forms);

    /// <summary>Forms of letters that a face has beyond the usual ones, as tags of OpenType features; none where it is not at hand.</summary>
    ImmutableArray<string> FormsOf(string face);
}

/// <summary>No faces at hand.</summary>
public sealed class NoFaces : IFaces
{
    public static readonly NoFaces Instance = new();

    public ImmutableArray<FaceName> All => [];

    public ShapedText? Shape(string face, string words, params IReadOnlyList<string> forms) => null;

    public ImmutableArray<string> FormsOf(string face) => [];
}
