using System.Collections.Immutable;

namespace Falzkunst.Core.Catalogue;

/// <summary>Sizes of sheets that paper is sold in (ISO 216; inch sizes as they are named in trade), and halves of them.</summary>
public static class SheetSizes
{
    private const double Inch = 25.4;

    /// <summary>The sizes, those in millimetres first; none at hand.</summary>
    public static ImmutableArray<SheetSize> Standard { get; } =
    [
        new("A4", 210, 297, 0), new("A3", 297, 420, 0), new("A5", 148, 210, 0), new("A6", 105, 148, 0), new("B4", 250, 353, 0), new("B5", 176, 250, 0),
        new("DL", 99, 210, 0), new("30 cm square", 300, 300, 0), new("15 cm square", 150, 150, 0),
        Inches("Letter", 8.5, 11), Inches("Half letter", 5.5, 8.5), Inches("Legal", 8.5, 14), Inches("Tabloid", 11, 17),
        Inches("12 inch square", 12, 12), Inches("Half 12 inch", 6, 12), Inches("6 inch square", 6, 6), Inches("8 inch square", 8, 8), Inches("12 × 24 inch", 12, 24),
        Inches("5 × 7 inch", 5, 7), Inches("4 × 6 inch", 4, 6),
    ];

    /// <summary>The size of that name; null where none has it.</summary>
    public static SheetSize? Named(string name) => Standard.FirstOrDefault(s => string.Equals(s.Name, name, StringComparison.OrdinalIgnoreCase));

    private static SheetSize Inches(string name, double width, double height) => new(name, Math.Round(width * Inch, 3), Math.Round(height * Inch, 3), 0);
}
