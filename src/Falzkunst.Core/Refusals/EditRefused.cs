using System.Collections.Immutable;
using System.Globalization;

namespace Falzkunst.Core.Refusals;

/// <summary>
/// An edit that cannot be done: the reason as a code with its numbers and names, and the field that it is about. The words for
/// people are the page's; the message is for whoever reads a log.
/// </summary>
/// <param name="reason">Why.</param>
/// <param name="values">What the reason speaks of, in its order: lengths as <see cref="Mm"/>, numbers, names, lists of names.</param>
public sealed class EditRefused(Reason reason, params ImmutableArray<object> values) : Exception(Describe(reason, values))
{
    public Reason Reason { get; } = reason;
    public ImmutableArray<object> Values { get; } = values;

    /// <summary>Name of the parameter that it is about, as the edit or action has it; null where it is about none alone.</summary>
    public string? Field { get; init; }

    /// <summary>A number of plain units that is not between two limits.</summary>
    public static EditRefused Range(Measure measure, double least, double most, string? field = null) =>
        new(Reason.OutOfRange, measure, least, most) { Field = field };

    /// <summary>A length that is not between two limits, mm.</summary>
    public static EditRefused RangeMm(Measure measure, double leastMm, double mostMm, string? field = null) =>
        new(Reason.OutOfRange, measure, new Mm(leastMm), new Mm(mostMm)) { Field = field };

    private static string Describe(Reason reason, ImmutableArray<object> values) => values.IsDefaultOrEmpty
        ? reason.ToString()
        : $"{reason}: {string.Join(", ", values.Select(v => v is IEnumerable<string> names ? string.Join("/", names) : Convert.ToString(v, CultureInfo.InvariantCulture)))}";
}
