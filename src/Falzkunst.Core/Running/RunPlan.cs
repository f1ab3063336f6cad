using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Running;

/// <summary>What happens to one sheet, stop by stop and pass by pass.</summary>
/// <param name="Steps">Stops and passes in order; begins with a stop for loading and ends with one for unloading.</param>
/// <param name="ToolChanges">How often a hand must put in another tool after the run has begun.</param>
public sealed record RunPlan(ImmutableArray<RunStep> Steps, int ToolChanges)
{
    /// <summary>Nothing to run.</summary>
    public static readonly RunPlan Empty = new([], 0);

    public IEnumerable<Pass> Passes => Steps.OfType<Pass>();

    /// <summary>Machine time and waiting for heat, without the time hands take, s.</summary>
    public double Seconds => Steps.Sum(s => s.Seconds);
}

/// <summary>One step of a run.</summary>
/// <param name="Seconds">How long it takes, hands not counted.</param>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "step")]
[JsonDerivedType(typeof(Stop), "stop")]
[JsonDerivedType(typeof(Pass), "pass")]
public abstract record RunStep(double Seconds);

/// <summary>One tool over the sheet.</summary>
/// <param name="Title">Such as "Inner cuts".</param>
/// <param name="Operation">The operation of all its lines.</param>
/// <param name="Tool">The tool.</param>
/// <param name="Ink">Colour of pen or foil, null for others.</param>
/// <param name="Holder">Name of the holder that carries the tool.</param>
/// <param name="Settings">Force, speed and so on.</param>
/// <param name="Lines">The lines in the order and direction they run.</param>
/// <param name="DrawLength">Length with the tool down, mm.</param>
/// <param name="TravelLength">Length with the tool up, mm.</param>
/// <param name="Seconds">From the first way to the last lift.</param>
/// <param name="FaceDown">The sheet lies face down; what runs is mirrored left to right.</param>
public sealed record Pass(
    string Title,
    Operation Operation,
    Tool Tool,
    string? Ink,
    string Holder,
    ToolSettings Settings,
    ImmutableArray<PassLine> Lines,
    double DrawLength,
    double TravelLength,
    double Seconds,
    bool FaceDown = false) : RunStep(Seconds)
{
    /// <summary>Through the top layer only. Plans that were stored before this was told say so by their title alone.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool HalfCut { get; init; }
}

/// <summary>One line of a pass, in the sheet's coordinates.</summary>
/// <param name="Piece">Id of its piece.</param>
/// <param name="Copy">Which copy of the piece.</param>
/// <param name="Line">Id of the line within the piece.</param>
/// <param name="Strokes">What the tool runs; one path, or many for a perforation.</param>
/// <param name="Seconds">Way to it and the line itself.</param>
public sealed record PassLine(string Piece, int Copy, string Line, ImmutableArray<Path> Strokes, double Seconds);

/// <summary>No holder of the machine takes a tool, so that no plan can be made.</summary>
public sealed class PlanRefused(string machine, Tool tool) : Exception($"{machine} has no holder for a {tool.Name()}")
{
    /// <summary>Name of the machine.</summary>
    public string Machine { get; } = machine;
    public Tool Tool { get; } = tool;
}
