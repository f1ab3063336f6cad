using Falzkunst.Core.Budgets;

namespace Falzkunst.Formats.Fonts;

/// <summary>Reads a file as a face, by what is in it.</summary>
public static class FaceFile
{
    /// <summary>The largest that are met, with many scripts, have ten.</summary>
    public const int MostBytes = 16 * 1024 * 1024;

    /// <summary>Reads a face to its last glyph.</summary>
    /// <exception cref="ReadRefused">It is no face, or one that cannot be used.</exception>
    public static FaceFacts Facts(byte[] file, Budget budget)
    {
        using var face = Read(file, budget);
        face.ReadAll();
        return new FaceFacts(ShownText.Clean(face.Family ?? "", LongestName), face.IsStroke);
    }

    private const int LongestName = 60;

    /// <summary>Forms of letters that a face offers for choice, as tags of features; nothing of its outlines is looked at.</summary>
    public static System.Collections.Immutable.ImmutableArray<string> FormsOf(byte[] file) => LetterForms.In(file);

    /// <exception cref="ReadRefused">It is no face, or one that cannot be used.</exception>
    public static Face Read(byte[] file, Budget? budget = null)
    {
        if (file.Length == 0) throw new ReadRefused("empty", "The file is empty.");
        if (file.Length > MostBytes) throw new ReadRefused("too-large", $"The file is larger than {MostBytes / 1048576} MB, which is the most that is read of a face.");
        try
        {
            return file.AsSpan().IndexOf("<svg"u8) >= 0 ? StrokeFace.Read(file, budget ?? new Budget(BudgetLimits.Reading)) : OutlineFace.Read(file);
        }
        catch (BudgetSpent spent)
        {
            throw ReadRefused.ForBudget(spent);
        }
    }
}
