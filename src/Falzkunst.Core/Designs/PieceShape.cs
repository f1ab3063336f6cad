using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>Paths in an order, as one value with one hash: what is stored, kept and sent once however often it is met.</summary>
public sealed class PieceShape : IEquatable<PieceShape>
{
    private readonly Lazy<string> _text;
    private readonly Lazy<string> _hash;

    public PieceShape(ImmutableArray<Path> paths)
    {
        if (paths.IsDefaultOrEmpty) throw new ArgumentException("A piece has at least its outline.", nameof(paths));
        Paths = paths;
        _text = new(() => TextOf(Paths), LazyThreadSafetyMode.PublicationOnly);
        _hash = new(() => ContentHash.Compute(Text), LazyThreadSafetyMode.PublicationOnly);
    }

    public ImmutableArray<Path> Paths { get; }

    /// <summary>One path a line, exact.</summary>
    public string Text => _text.Value;

    /// <summary>SHA-256 of <see cref="Text"/>, lower-case hexadecimal; equal shapes have equal hashes.</summary>
    public string Hash => _hash.Value;

    public static PieceShape Read(string text) => new([.. text.Split('\n').Select(PathText.Read)]);

    /// <summary>The hash that a shape of these paths has.</summary>
    public static string HashOf(IEnumerable<Path> paths) => ContentHash.Compute(TextOf(paths));

    private static string TextOf(IEnumerable<Path> paths) => string.Join('\n', paths.Select(p => PathText.Write(p)));

    public bool Equals(PieceShape? other) => other is not null && Hash == other.Hash;
    public override bool Equals(object? obj) => Equals(obj as PieceShape);
    public override int GetHashCode() => Hash.GetHashCode(StringComparison.Ordinal);
}
