using System.Globalization;
using Falzkunst.Core.Budgets;

namespace Falzkunst.Formats;

/// <summary>A file that is not read, with a stable code and a sentence that says what is wrong and what to do.</summary>
public sealed class ReadRefused(string code, string message) : Exception(message)
{
    public string Code { get; } = code;

    /// <summary>The refusal of a file that asked for more than it may have.</summary>
    public static ReadRefused ForBudget(BudgetSpent spent)
    {
        var limit = spent.Limit.ToString("N0", CultureInfo.InvariantCulture);
        return spent.Part switch
        {
            BudgetPart.Bytes => new("too-large", $"The file is larger than {spent.Limit / 1048576:0} MB, which is the most that is read. Take out embedded pictures, or split the drawing into parts."),
            BudgetPart.Depth => new("too-deep", $"Groups or repeated parts lie in each other more than {limit} deep. Ungroup the drawing and save it again."),
            BudgetPart.Elements => new("too-many-elements", $"The file has more than {limit} elements. Split the drawing into parts."),
            BudgetPart.Shapes => new("too-many-shapes", $"The file draws more than {limit} shapes, parts that repeat counted each time. Split the drawing into parts."),
            BudgetPart.Segments => new("too-many-segments", $"The lines have more than {limit} segments. Simplify the drawing or split it."),
            BudgetPart.Points => new("too-large-curves", $"The curves are too long or too many to be worked out exactly ({limit} corners). Was the drawing meant smaller? Scale it down and save it again."),
            BudgetPart.Pieces => new("too-many-pieces", $"The file makes more than {limit} pieces. Split the drawing into parts."),
            BudgetPart.Time or BudgetPart.Work => new("too-slow", "The file takes too long to work out and was stopped. Simplify the drawing or split it into parts."),
            _ => throw new ArgumentOutOfRangeException(nameof(spent), spent.Part, "This part has no sentence."),
        };
    }
}
