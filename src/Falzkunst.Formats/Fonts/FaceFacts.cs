namespace Falzkunst.Formats.Fonts;

/// <summary>What is told of a face that was read to its last glyph.</summary>
/// <param name="Name">What the file calls it.</param>
/// <param name="IsStroke">It is a single-line one.</param>
public sealed record FaceFacts(string Name, bool IsStroke);
