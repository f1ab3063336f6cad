namespace Falzkunst.Core.Designs;

/// <summary>
/// The operation of a line that no rule speaks of, from what files usually mean: words in layer names first, then broken
/// strokes as folds, else a cut. What geometry says on top of this is in the Assembling folder.
/// </summary>
public static class DefaultOperations
{
    private static readonly (string Stem, Operation Operation)[] Stems =
    [
        ("perf", Operation.Perforate), ("tear", Operation.Perforate),
        ("score", Operation.Score), ("fold", Operation.Score), ("crease", Operation.Score), ("falz", Operation.Score),
        ("valley", Operation.Score), ("mountain", Operation.Score),
        ("foil", Operation.Foil), ("emboss", Operation.Emboss),
        ("pen", Operation.Draw), ("draw", Operation.Draw), ("write", Operation.Draw), ("writing", Operation.Draw),
        ("letter", Operation.Draw), ("sketch", Operation.Draw),
        ("print", Operation.Print),
        ("aid", Operation.Aid), ("guide", Operation.Aid), ("template", Operation.Aid),
        ("cut", Operation.Cut), ("outline", Operation.Cut),
    ];

    /// <summary>The operation that a name states outright: its part up to the first hyphen is an operation's word.</summary>
    public static Operation? Stated(string? name)
    {
        if (string.IsNullOrWhiteSpace(name)) return null;
        var end = name.IndexOf('-', StringComparison.Ordinal);
        return OperationWords.TryRead((end < 0 ? name : name[..end]).Trim(), out var operation) ? operation : null;
    }

    /// <summary>The operation that a layer's name suggests by one of its words; null where none does.</summary>
    public static Operation? Suggested(string? layer)
    {
        if (string.IsNullOrWhiteSpace(layer)) return null;
        var words = layer.Split([' ', '-', '_', '.', ',', '/', '(', ')'], StringSplitOptions.RemoveEmptyEntries);
        foreach (var word in words)
        {
            foreach (var (stem, operation) in Stems)
            {
                if (Matches(word, stem)) return operation;
            }
        }
        return null;
    }

    /// <summary>The default for a line by its look alone.</summary>
    public static Operation For(Look look) =>
        Suggested(look.Layer) ?? (look.Dashed ? Operation.Score : Operation.Cut);

    private static readonly HashSet<string> Endings = new(StringComparer.OrdinalIgnoreCase)
    {
        "", "s", "d", "ed", "ing", "line", "lines", "orate", "orated", "oration", "orations", "ering",
    };

    // "folds", "scored", "scoring", "cutting" and "embossing" count; "cutlery" and "pencil" do not.
    private static bool Matches(string word, string stem)
    {
        if (stem[^1] == 'e' && Ends(stem[..^1], "ing")) return true;
        return Endings.Any(e => Ends(stem, e)) || Ends(stem + stem[^1], "ing");
        bool Ends(string begin, string end) => string.Equals(word, begin + end, StringComparison.OrdinalIgnoreCase);
    }
}
