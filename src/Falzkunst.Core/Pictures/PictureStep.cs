using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Pictures;

/// <summary>
/// One thing done to a picture. Places are shares of its width and height as it is at that step, from 0, 0 at the upper left to 1, 1, so
/// that a step means the same on a small copy and on the whole picture.
/// </summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "step")]
[JsonDerivedType(typeof(Crop), "crop")]
[JsonDerivedType(typeof(Lay), "lay")]
[JsonDerivedType(typeof(Straighten), "straighten")]
[JsonDerivedType(typeof(Unfold), "unfold")]
[JsonDerivedType(typeof(LevelLight), "level-light")]
[JsonDerivedType(typeof(BackgroundAway), "background")]
[JsonDerivedType(typeof(BackgroundGuessed), "background-guessed")]
[JsonDerivedType(typeof(Brush), "brush")]
public abstract record PictureStep
{
    /// <summary>It changes where dots lie, not only what they show.</summary>
    [JsonIgnore]
    public virtual bool IsGeometric => false;
}

/// <summary>Form of a crop.</summary>
public enum CropForm
{
    Rectangle,
    Ellipse,
}

/// <summary>Only a part is kept.</summary>
public sealed record Crop(double X, double Y, double Width, double Height, CropForm Form = CropForm.Rectangle) : PictureStep
{
    public override bool IsGeometric => true;
}

/// <summary>Turned by quarters, or mirrored.</summary>
public sealed record Lay(Orientation Way) : PictureStep
{
    public override bool IsGeometric => true;
}

/// <summary>Turned by an angle, degrees from x towards y; what is bare then is transparent.</summary>
public sealed record Straighten(double Degrees) : PictureStep
{
    public const double MostDegrees = 45;

    public override bool IsGeometric => true;
}

/// <summary>A page photographed from aside made a rectangle: its corners from the upper left on, clockwise.</summary>
public sealed record Unfold(Point UpperLeft, Point UpperRight, Point LowerRight, Point LowerLeft) : PictureStep
{
    public override bool IsGeometric => true;

    [JsonIgnore]
    public ImmutableArray<Point> Corners => [UpperLeft, UpperRight, LowerRight, LowerLeft];
}

/// <summary>The light of a photographed page made even.</summary>
public sealed record LevelLight : PictureStep;

/// <summary>What was touched becomes transparent.</summary>
/// <param name="X">Where it was touched.</param>
/// <param name="Y">Where it was touched.</param>
/// <param name="Tolerance">How far colours may be from it to the eye; black to white is 1.</param>
/// <param name="Everywhere">All of that colour, wherever it is, and not only what hangs together.</param>
public sealed record BackgroundAway(double X, double Y, double Tolerance, bool Everywhere = false) : PictureStep
{
    public const double Least = 0.005, Most = 0.6, Usual = 0.09;
}

/// <summary>What lies along the edges of the picture becomes transparent, as far as it is of one colour.</summary>
/// <param name="Tolerance">How far colours may be from it to the eye.</param>
public sealed record BackgroundGuessed(double Tolerance) : PictureStep;

/// <summary>A stroke that gives back what was taken away, or takes more.</summary>
/// <param name="Points">Where it ran.</param>
/// <param name="Radius">As a share of the picture's width.</param>
/// <param name="Gives">It gives back.</param>
public sealed record Brush(ImmutableArray<Point> Points, double Radius, bool Gives) : PictureStep
{
    public const int MostPoints = 2000;
    public const double LeastRadius = 0.001, MostRadius = 0.25;
}
