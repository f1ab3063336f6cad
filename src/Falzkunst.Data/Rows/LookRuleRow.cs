namespace Falzkunst.Data.Rows;

/// <summary>A look rule that was remembered. Later ones win.</summary>
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
    public DateTimeOffset At { get; set; }
}
