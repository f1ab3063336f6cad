namespace Falzkunst.Core.Designs;

/// <summary>How many characters names have at most: for the rules, the fields and the columns alike.</summary>
public static class NameLimits
{
    public const int Project = 120;

    /// <summary>Of a piece, and of a variant of one.</summary>
    public const int Piece = 80;

    /// <summary>Of the designer or shop that a file came from.</summary>
    public const int Origin = 80;

    public const int FileName = 200;

    /// <summary>Of a command as it is typed.</summary>
    public const int Command = 400;
}
