using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Geometry.Overlay;

namespace Falzkunst.Core.Designs;

/// <summary>Why a piece cannot be made again as what it follows from, and keeps its last form.</summary>
public enum FollowFault
{
    /// <summary>What it follows is no longer there.</summary>
    SourceGone,

    /// <summary>Nothing is left of it, or not of this part of it.</summary>
    NothingLeft,

    /// <summary>It has become too intricate to work out.</summary>
    TooIntricate,
}

/// <summary>
/// What a piece's outline and openings follow from. The piece keeps them as they are now, so that everything that works on pieces needs
/// no more; an edit that changes what they follow from makes them anew in the same revision. A piece whose form is changed by hand, or
/// that is made plain, follows nothing any more.
/// </summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "from")]
[JsonDerivedType(typeof(FromBorder), "border")]
[JsonDerivedType(typeof(FromWords), "words")]
[JsonDerivedType(typeof(FromCombination), "combination")]
[JsonDerivedType(typeof(FromRim), "rim")]
public abstract record Derivation
{
    /// <summary>From the coordinates of the first piece that it follows to the piece's own.</summary>
    public Affine Frame { get; init; } = Affine.Identity;

    /// <summary>Ids of the piece's lines that are openings which follow as well.</summary>
    public ImmutableArray<string> Openings { get; init; } = [];

    /// <summary>Why it keeps its last form; null where it follows.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public FollowFault? Fault { get; init; }

    /// <summary>Ids of the pieces that it follows, that in whose coordinates it is worked out first.</summary>
    [JsonIgnore]
    public abstract ImmutableArray<string> Sources { get; }

    /// <summary>It lies where the first piece that it follows lies, and goes with it.</summary>
    [JsonIgnore]
    public virtual bool GoesAlong => true;

    /// <summary>The same with pieces that have other ids; null where one that it follows has none.</summary>
    public abstract Derivation? Renamed(Func<string, string?> idOf);

    /// <summary>The piece that follows is mapped within its coordinates.</summary>
    public virtual Derivation Under(Affine map) => this with { Frame = Frame.Then(map) };
}

/// <summary>A copy of a piece's outline, larger or smaller all round, or a ring of it.</summary>
/// <param name="Piece">Id of the piece; where it is cut of words, all parts of them are meant.</param>
/// <param name="Border">How far, with which corners, openings or ring.</param>
/// <param name="Part">Which of the parts that it falls into, the largest is 0.</param>
public sealed record FromBorder(string Piece, Border Border, int Part = 0) : Derivation
{
    public override ImmutableArray<string> Sources => [Piece];

    public override Derivation? Renamed(Func<string, string?> idOf) => idOf(Piece) is { } id ? this with { Piece = id } : null;
}

/// <summary>How the loose parts of words cut of paper are held together.</summary>
public enum WordTie
{
    /// <summary>They are not: each is a piece.</summary>
    Loose,

    /// <summary>By a bar under each line, into which letters reach.</summary>
    Bar,

    /// <summary>By short straight bridges.</summary>
    Bridges,
}

/// <summary>Words as pieces: letters that overlap are one outline.</summary>
/// <param name="Of">Id of the piece that has the words; null on that piece itself, which is their largest part.</param>
/// <param name="Text">Id of the text there.</param>
/// <param name="Part">Which of the parts it is: 0 is the largest, the others are counted from the left.</param>
/// <param name="Tie">What holds them together.</param>
/// <param name="TieMm">Height of the bar, or width of the bridges, mm.</param>
public sealed record FromWords(string? Of, string Text, int Part, WordTie Tie, double TieMm) : Derivation
{
    /// <summary>Limits of bars and bridges, mm.</summary>
    public const double LeastTieMm = 0.2, MostTieMm = 50;

    public override ImmutableArray<string> Sources => Of is { } other ? [other] : [];

    public override Derivation? Renamed(Func<string, string?> idOf) => Of is not { } other ? this : idOf(other) is { } id ? this with { Of = id } : null;

    /// <summary>The words lie on the piece itself, in its own coordinates.</summary>
    public override Derivation Under(Affine map) => Of is null ? this : base.Under(map);
}

/// <summary>Two pieces or more as one.</summary>
/// <param name="How">United, the others taken out of the first, or what all have.</param>
/// <param name="Pieces">Ids of the pieces, the first in whose coordinates it is worked out.</param>
/// <param name="Part">Which of the parts that it falls into, the largest is 0.</param>
public sealed record FromCombination(Combination How, ImmutableArray<string> Pieces, int Part = 0) : Derivation
{
    public override ImmutableArray<string> Sources => Pieces;

    public override Derivation? Renamed(Func<string, string?> idOf) =>
        Pieces.Select(idOf).ToImmutableArray() is var ids && ids.All(id => id is not null) ? this with { Pieces = ids! } : null;
}

/// <summary>The rim of something traced, with paper round it.</summary>
/// <param name="Rim">The traced outlines, in the coordinates that it is worked out in.</param>
/// <param name="BorderMm">Paper round them, mm; outlines that then overlap are one.</param>
/// <param name="Part">Which of the parts that it falls into.</param>
public sealed record FromRim(ImmutableArray<Path> Rim, double BorderMm, int Part = 0) : Derivation
{
    /// <summary>No more paper is left round a rim, mm.</summary>
    public const double MostMm = 100;

    public override ImmutableArray<string> Sources => [];

    public override Derivation Renamed(Func<string, string?> idOf) => this;
}
