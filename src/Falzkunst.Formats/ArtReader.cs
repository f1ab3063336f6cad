using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Formats.Dxf;
using Falzkunst.Formats.Svg;

namespace Falzkunst.Formats;

/// <summary>Reads art by what is in the file, not by its name.</summary>
public static class ArtReader
{
    /// <summary>Reads an SVG or a DXF file.</summary>
    /// <param name="file">Its bytes; taken as hostile.</param>
    /// <param name="budget">How much it may ask for; the usual where none is given.</param>
    /// <exception cref="ReadRefused">The file is neither, or is not read; what is read in part is in the drawing's notes.</exception>
    /// <exception cref="OperationCanceledException">Whoever asked has left.</exception>
    public static Drawing Read(ReadOnlyMemory<byte> file, Budget? budget = null)
    {
        budget ??= new Budget(BudgetLimits.Reading);
        try
        {
            budget.Bytes(file.Length);
            if (FileKinds.Detect(file.Span) is { } kind) throw new ReadRefused("other-kind", $"Whatever its name says, this is {kind}. {FileKinds.Advice}");
            return DxfTags.LooksLikeDxf(file.Span) ? DxfReader.Read(file, budget) : SvgReader.Read(file, budget, ArtFaces.Instance);
        }
        catch (BudgetSpent spent)
        {
            throw ReadRefused.ForBudget(spent);
        }
    }
}
