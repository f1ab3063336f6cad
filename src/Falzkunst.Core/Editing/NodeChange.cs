using System.Text.Json.Serialization;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Editing;

/// <summary>One change at the nodes of a line, in card coordinates.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "change")]
[JsonDerivedType(typeof(MoveNode), "move")]
[JsonDerivedType(typeof(MoveHandle), "handle")]
[JsonDerivedType(typeof(AddNode), "add")]
[JsonDerivedType(typeof(DeleteNode), "delete")]
[JsonDerivedType(typeof(SmoothNode), "smooth")]
[JsonDerivedType(typeof(CornerNode), "corner")]
public abstract record NodeChange
{
    /// <summary>What it did, in the past tense.</summary>
    [JsonIgnore]
    public abstract string Sentence { get; }

    /// <summary>The path after it; the path's way back to its start is written out.</summary>
    /// <exception cref="EditRefused">There is no such node, or it cannot be spared.</exception>
    public abstract Path Apply(Path path);

    protected static int Checked(Path path, int node) => node >= 0 && node < PathNodes.Count(path)
        ? node
        : throw new EditRefused(Reason.NodeGone);

    protected static int CheckedSegment(Path path, int segment) => segment >= 0 && segment < path.Segments.Length
        ? segment
        : throw new EditRefused(Reason.SegmentGone);

    protected static Point Checked(Point to) => to.IsFinite && Math.Abs(to.X) <= Arranging.MostMoveMm && Math.Abs(to.Y) <= Arranging.MostMoveMm
        ? to
        : throw new EditRefused(Reason.TooFarOff);
}

public sealed record MoveNode(int Node, Point To) : NodeChange
{
    public override string Sentence => "Moved a node";
    public override Path Apply(Path path) => PathNodes.Move(path, Checked(path, Node), Checked(To));
}

public sealed record MoveHandle(int Segment, bool First, Point To) : NodeChange
{
    public override string Sentence => "Bent a line";
    public override Path Apply(Path path) => PathNodes.MoveHandle(path, CheckedSegment(path, Segment), First, Checked(To));
}

/// <param name="Segment">Index of the segment.</param>
/// <param name="At">Its parameter there, above 0 and below 1.</param>
public sealed record AddNode(int Segment, double At) : NodeChange
{
    public override string Sentence => "Added a node";
    public override Path Apply(Path path) => PathNodes.Insert(path, CheckedSegment(path, Segment), Math.Clamp(At, 0.001, 0.999));
}

public sealed record DeleteNode(int Node) : NodeChange
{
    public override string Sentence => "Took a node out";
    public override Path Apply(Path path) => PathNodes.Delete(path, Checked(path, Node))
        ?? throw new EditRefused(Reason.NodeNeeded);
}

public sealed record SmoothNode(int Node) : NodeChange
{
    public override string Sentence => "Smoothed a node";
    public override Path Apply(Path path) => PathNodes.Smooth(path, Checked(path, Node));
}

public sealed record CornerNode(int Node) : NodeChange
{
    public override string Sentence => "Made a node a corner";
    public override Path Apply(Path path) => PathNodes.Corner(path, Checked(path, Node));
}
