namespace Falzkunst.Core.Budgets;

/// <summary>A computation asked for more than it may have, and was stopped.</summary>
/// <param name="part">What was used up.</param>
/// <param name="limit">How much of it there was, in its own unit (seconds, bytes, count).</param>
public sealed class BudgetSpent(BudgetPart part, double limit) : Exception($"{part} is limited to {limit}.")
{
    public BudgetPart Part { get; } = part;
    public double Limit { get; } = limit;
}
