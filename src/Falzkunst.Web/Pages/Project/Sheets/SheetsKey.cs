using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Projects;

namespace Falzkunst.Web.Pages.Project;

/// <summary>
/// What is looked at and picked at Sheets, as it stands in addresses and headers: the stock, behind it which of its layouts,
/// behind that the copies that are picked, as in "kraft-240@now:p1.1,p4.2".
/// </summary>
/// <param name="Stock">Key of the stock; null for the first one.</param>
/// <param name="IsAsItLies">The layout in the project is looked at even where there is a settled one.</param>
/// <param name="Copies">What is picked.</param>
public sealed record SheetsKey(string? Stock, bool IsAsItLies, ImmutableArray<PlacedCopy> Copies)
{
    public const string AsItLies = "@now";
    public const string AsSettled = "@settled";
    private const int LongestKey = 20_000;

    public static SheetsKey Read(string? key)
    {
        if (string.IsNullOrEmpty(key) || key.Length > LongestKey) return new(null, false, []);
        var parts = key.Split(':', 2);
        return new(parts[0].Split('@')[0], parts[0].EndsWith(AsItLies, StringComparison.Ordinal), parts.Length == 2 ? ReadCopies(parts[1]) : []);
    }

    /// <summary>Copies written as "p1.1,p4.2"; what is none is passed over.</summary>
    public static ImmutableArray<PlacedCopy> ReadCopies(string? text) => text is null || text.Length > LongestKey ? [] :
    [
        .. text.Split(',').Select(word =>
        {
            var dot = word.LastIndexOf('.');
            return dot > 0 && int.TryParse(word.AsSpan(dot + 1), NumberStyles.None, CultureInfo.InvariantCulture, out var copy) ? new PlacedCopy(word[..dot], copy) : null;
        }).OfType<PlacedCopy>(),
    ];

    public static string Write(IEnumerable<PlacedCopy> copies) => string.Join(',', copies.Select(c => string.Create(CultureInfo.InvariantCulture, $"{c.Piece}.{c.Copy}")));
}
