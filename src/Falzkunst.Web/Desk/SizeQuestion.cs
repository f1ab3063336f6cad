using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Data.Projects;

namespace Falzkunst.Web.Desk;

/// <summary>A size to choose for a file.</summary>
/// <param name="Scale">What its lengths are multiplied by then.</param>
/// <param name="Width">mm.</param>
/// <param name="Height">mm.</param>
/// <param name="Why">What its units would mean.</param>
/// <param name="IsNow">It is taken so now.</param>
public sealed record SizeChoice(double Scale, double Width, double Height, string Why, bool IsNow);

/// <summary>A question about the size of a file.</summary>
/// <param name="File">Key of the file.</param>
/// <param name="Name">Its name.</param>
/// <param name="Said">What it says, or that it says nothing, as a sentence.</param>
/// <param name="IsOpen">Nobody has answered yet.</param>
/// <param name="IsIn">It came in at one of the sizes; otherwise it waits for the answer.</param>
/// <param name="Choices">The sizes to choose from.</param>
public sealed record SizeQuestion(Guid File, string Name, string Said, bool IsOpen, bool IsIn, ImmutableArray<SizeChoice> Choices)
{
    /// <summary>Units to the inch that drawing programs take, beside the one that the file was taken at.</summary>
    private static readonly double[] Known = [96, 72, 90, 100, 25.4];

    /// <summary>A page of less or more was not meant, mm.</summary>
    private const double Smallest = 5;
    private const double Largest = 2000;

    /// <summary>A file larger than any sheet by far.</summary>
    public static SizeQuestion TooLarge(SizeAsked asked) => new(
        asked.File, asked.Name, "By what it says it is larger than any sheet by far.", IsOpen: true, IsIn: false,
        [.. asked.Sizes.Select(s => new SizeChoice(s.Scale, s.Width, s.Height, s.Why, IsNow: false))]);

    /// <summary>A file that says no size, taken as its lengths suggested or as its user chose.</summary>
    public static SizeQuestion WithoutUnits(ArtCard file, OnDesk on)
    {
        var read = file.UnitsToInch!.Value;
        var now = ArtDesk.ScaleOf(on, file.Id, file.Scale);
        var (width, height) = (file.WidthMm / file.Scale, file.HeightMm / file.Scale);
        var scales = Known.Select(units => read / units).ToList();
        if (!scales.Exists(s => Math.Abs(s - now) < 1e-9 * now)) scales.Insert(0, now);
        var choices = scales.Select(s => new SizeChoice(s, width * s, height * s, Words(read / s), Math.Abs(s - now) < 1e-9 * now))
            .Where(c => c.IsNow || Math.Max(c.Width, c.Height) is >= Smallest and <= Largest).OrderByDescending(c => c.IsNow);
        return new(file.Id, file.FileName, "The file does not say how large it is.", !on.Value.SetOut.ArtScales.ContainsKey(file.Id), IsIn: true, [.. choices]);
    }

    private static string Words(double units) => Math.Abs(units - 25.4) < 1e-6 ? "one unit a millimetre" : string.Create(CultureInfo.InvariantCulture, $"{units:0.##} to the inch");
}
