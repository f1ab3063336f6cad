namespace Falzkunst.Web.Pages.Project;

/// <summary>The numbers that stacks are looked at with before they are made, mm.</summary>
public sealed record BuildNumbers
{
    /// <summary>Of colours inside one outline.</summary>
    public double Rim { get; init; } = 3;
    public double Close { get; init; } = 0.3;
    public double Bridge { get; init; } = 1;

    /// <summary>Id of the piece that is the outline; null for the lowest of those that are picked.</summary>
    public string? Outline { get; init; }

    /// <summary>Of frames and shadow layers.</summary>
    public int Count { get; init; } = 3;
    public double Step { get; init; } = 12;
    public double Backing { get; init; } = 2;
    public double? Glue { get; init; } = 5;
}
