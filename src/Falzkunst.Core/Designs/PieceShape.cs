using System.Collections.Immutable;
using System.Security.Cryptography;
using System.Text;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>The paths of a piece, apart from everything else about it, so that other edits do not write them again.</summary>
public sealed class PieceShape : IEquatable<PieceShape>
{
    private readonly Lazy<string> _text;
    private readonly Lazy<string> _hash;

    public PieceShape(ImmutableArray<Path> paths)
    {
        if (paths.IsDefaultOrEmpty) throw new ArgumentException("A piece has at least its outline.", nameof(paths));
        Paths = paths;
        _text = new(() => string.Join('\n', Paths.Select(PathText.Write)));
        _hash = new(() => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(Text))));
    }

    public ImmutableArray<Path> Paths { get; }

    /// <summary>One path a line, exact.</summary>
    public string Text => _text.Value;

    /// <summary>SHA-256 of <see cref="Text"/>, lower-case hexadecimal; equal shapes have equal hashes.</summary>
    public string Hash => _hash.Value;

    public static PieceShape Read(string text) => new([.. text.Split('\n').Select(PathText.Read)]);

    public bool Equals(PieceShape? other) => other is not null && Hash == other.Hash;
    public override bool Equals(object? obj) => Equals(obj as PieceShape);
    public override int GetHashCode() => Hash.GetHashCode(StringComparison.Ordinal);
}
