using Falzkunst.Core.Texts;

namespace Falzkunst.Formats.Svg;

/// <summary>Faces in which the text of a drawing is set.</summary>
internal interface ITextFaces
{
    /// <summary>Words in the face that comes nearest to one that is asked for.</summary>
    /// <param name="families">Families as CSS lists them.</param>
    /// <param name="weight">100 to 900; 400 is usual.</param>
    /// <param name="words">One line of words.</param>
    /// <returns>The words, what the face is called, and its capital height as a share of its em.</returns>
    (ShapedText Shaped, string Name, double CapitalsOfEm) Set(string families, int weight, string words);
}
