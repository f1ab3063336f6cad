using Falzkunst.Core.Budgets;

namespace Falzkunst.Core.Tracing;

/// <summary>What is to be traced of a picture, dot by dot, ready for curves to be fitted as near as is wanted.</summary>
public sealed class SeenLines
{
    private readonly Func<double, Budget, Traced> _fit;

    internal SeenLines(int points, Func<double, Budget, Traced> fit) => (Points, _fit) = (points, fit);

    /// <summary>How many points it has.</summary>
    public int Points { get; }

    /// <summary>Fits curves.</summary>
    /// <param name="tolerance">How near they keep to what is seen, dots.</param>
    /// <param name="budget">Work and time are drawn from it.</param>
    /// <exception cref="BudgetSpent">It takes longer than it may.</exception>
    public Traced Fit(double tolerance, Budget budget) => _fit(tolerance, budget);
}
