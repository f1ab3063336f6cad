using System.Collections.Immutable;
using System.Globalization;

namespace Falzkunst.Core.Designs.ArtSheets;

/// <summary>Motifs joined to one, or parted, by hand; numbers as they were before.</summary>
public sealed record MotifChange(bool IsJoin, ImmutableArray<int> Motifs);

/// <summary>How a sheet is parted into motifs: how near lines are that belong together, and what a hand changed after that.</summary>
/// <param name="Level">0 as the sheet suggests; below it closer, so that more are told apart, above it farther.</param>
/// <param name="Changes">What was joined and parted, in order.</param>
public sealed record MotifCut(int Level, ImmutableArray<MotifChange> Changes)
{
    /// <summary>Levels go this far either way.</summary>
    public const int MostLevel = 4;

    /// <summary>Changes by hand that are kept on one sheet, and motifs in one of them.</summary>
    private const int MostChanges = 100;
    private const int MostMotifs = 500;

    public static readonly MotifCut Usual = new(0, []);

    /// <summary>As it stands in a form: "1|j3,4|p8". What is not understood is passed over.</summary>
    public static MotifCut Read(string? text)
    {
        var parts = (text ?? "").Split('|');
        var level = int.TryParse(parts[0], NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var read) ? Math.Clamp(read, -MostLevel, MostLevel) : 0;
        return new MotifCut(level, [.. parts.Skip(1).Take(MostChanges).Where(p => p.Length > 1 && p[0] is 'j' or 'p').Select(p => new MotifChange(
            p[0] == 'j',
            [.. p[1..].Split(',').Take(MostMotifs).Select(n => int.TryParse(n, NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : 0).Where(n => n > 0)]))]);
    }

    /// <summary>What <see cref="Read"/> reads.</summary>
    public string Write() => string.Join('|', Changes.Select(c => (c.IsJoin ? "j" : "p") + string.Join(',', c.Motifs)).Prepend(Level.ToString(CultureInfo.InvariantCulture)));

    /// <summary>Another level; what was changed by hand named motifs of the former one and is let go.</summary>
    public static MotifCut At(int level) => new(Math.Clamp(level, -MostLevel, MostLevel), []);

    public MotifCut With(bool isJoin, IEnumerable<int> motifs) => this with { Changes = Changes.Add(new MotifChange(isJoin, [.. motifs])) };
}
