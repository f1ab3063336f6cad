
namespace Falzkunst.Core.Designs;

/// <summary>Names that no other piece has.</summary>
internal static class PieceNaming
{
    /// <summary>The name with the first free number behind it; it is taken then.</summary>
    public static string Free(string name, HashSet<string> taken)
    {
        var stem = name.EndsWith(')') && name.LastIndexOf(" (", StringComparison.Ordinal) is > 0 and var at
            && int.TryParse(name.AsSpan(at + 2, name.Length - at - 3), out _) ? name[..at] : name;
        var number = 2;
        while (!taken.Add($"{stem} ({number})")) number++;
        return $"{stem} ({number})";
    }

    /// <summary>The name itself where it is free, else with a number; it is taken then.</summary>
    public static string Wished(string name, HashSet<string> taken) => taken.Add(name) ? name : Free(name, taken);

    /// <summary>The name itself where it is free, else with a number.</summary>
    public static string Wished(string name, Design design)
    {
        var taken = design.Pieces.Select(p => p.Name).ToHashSet();
        return Wished(name, taken);
    }
}
