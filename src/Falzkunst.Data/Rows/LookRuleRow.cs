namespace Falzkunst.Data.Rows;

/// <summary>A look rule that was remembered. The first that fits a line wins.</summary>
public sealed class LookRuleRow
{
    public Guid Id { get; set; }
    public Guid Owner { get; set; }
    public required string Operation { get; set; }
    public string? Stroke { get; set; }
    public string? Fill { get; set; }
    public bool? Dashed { get; set; }
    public bool? Closed { get; set; }
    public string? Layer { get; set; }

    /// <summary>Which way scores fold; null where that is left open.</summary>
    public string? Fold { get; set; }

    /// <summary>The hand whose files it is for; null for any.</summary>
    public string? Origin { get; set; }

    /// <summary>Its place among the owner's rules, lowest first.</summary>
    public int Position { get; set; }
    public DateTimeOffset At { get; set; }
}
