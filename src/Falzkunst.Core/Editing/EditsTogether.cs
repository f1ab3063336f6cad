using System.Collections.Immutable;
using System.Text.Json.Serialization;

namespace Falzkunst.Core.Editing;

/// <summary>Several edits as one: done together or not at all, and taken back by one undo.</summary>
/// <param name="Edits">In the order they are done; none of them is again several.</param>
public sealed record EditsTogether(ImmutableArray<Edit> Edits) : Edit
{
    [JsonIgnore]
    public override string Sentence => Edits.Length == 1 ? Edits[0].Sentence : $"{Edits[0].Sentence}, and {Edits.Length - 1} more";
}
