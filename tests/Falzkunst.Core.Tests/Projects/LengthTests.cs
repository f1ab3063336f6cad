using CsCheck;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Projects;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Projects;

public sealed class LengthTests
{
    [Theory]
    [InlineData("148", 148)]
    [InlineData("148 mm", 148)]
    [InlineData("1.5cm", 15)]
    [InlineData("2in", 50.8)]
    [InlineData("2\"", 50.8)]
    [InlineData("72pt", 25.4)]
    [InlineData("8.5in/2 - 3", 104.95)]
    [InlineData("(10 + 2) * 3", 36)]
    [InlineData("-(2 - 5)", 3)]
    [InlineData("3 × 4 mm", 12)]
    [InlineData("2,5", 2.5)]
    public void Lengths_are_understood(string text, double mm)
    {
        Assert.Null(Length.Read(text, Units.Millimetres, out var read));
        Assert.Equal(mm, read, 1e-9);
    }

    [Theory]
    [InlineData("2", 50.8)]
    [InlineData("8.5/2", 107.95)]
    [InlineData("1 + 10mm", 35.4)]
    [InlineData("2 * 10 mm", 20)]
    public void A_bare_number_is_in_the_units_of_the_field(string text, double mm)
    {
        Assert.Null(Length.Read(text, Units.Inches, out var read));
        Assert.Equal(mm, read, 1e-9);
    }

    [Theory]
    [InlineData("")]
    [InlineData("wide")]
    [InlineData("3 miles")]
    [InlineData("3 mmm")]
    [InlineData("2in * 2in")]
    [InlineData("4 / 2mm")]
    [InlineData("1/0")]
    [InlineData("(3")]
    [InlineData("3 4")]
    [InlineData("((((((((((((((((((((((((1))))))))))))))))))))))))")]
    public void What_is_no_length_is_told_by_its_fault(string text) => Assert.Equal(
        text.Length == 0 ? LengthFault.Empty : text == "1/0" ? LengthFault.DividesByZero : LengthFault.NotUnderstood, Length.Read(text, Units.Millimetres, out _));

    [Theory]
    [InlineData("1,250", true)]
    [InlineData("12,500 mm + 3", true)]
    [InlineData("3 + 999,999", true)]
    [InlineData("0,250", false)]
    [InlineData("1,25", false)]
    [InlineData("1,2500", false)]
    [InlineData("1250,125", false)]
    public void A_comma_that_may_part_thousands_is_asked_about(string text, bool isAsked)
    {
        Assert.Equal(isAsked ? LengthFault.EitherComma : null, Length.Read(text, Units.Millimetres, out _));
        Assert.Equal(!isAsked, !Numbers.HasEitherComma(text.Split(' ').Last(w => w.Contains(','))));
    }

    [Fact]
    public void A_field_that_was_not_touched_changes_nothing() => Gen.Select(Gen.Double[1, 2000], Gen.Enum<Units>()).ForAll((mm, units) =>
    {
        Assert.Null(Length.Read(Length.InField(mm, units), units, out var posted));
        Assert.Equal(mm, Length.Kept(posted, mm, units));
        Assert.Equal(posted + 1, Length.Kept(posted + 1, mm, units));
    });

    [Fact]
    public void Any_text_is_read_or_refused_without_an_exception() => Gen.String.ForAll(text => { Length.Read(text, Units.Inches, out _); });

    [Fact]
    public void What_a_field_shows_is_read_back() => Gen.Select(Gen.Double[0, 2000], Gen.Enum<Units>()).ForAll((mm, units) =>
    {
        Assert.Null(Length.Read(Length.InField(mm, units), units, out var read));
        // Two decimals of a millimetre, three of an inch, or an eighth where it is one but for less than a blade's width.
        Assert.Equal(mm, read, units == Units.Millimetres ? 0.00501 : units == Units.Inches ? 0.0128 : 0.0385);
    });

    [Theory]
    [InlineData(117.454, Units.Millimetres, "117.454 mm")]
    [InlineData(117.4536721, Units.Millimetres, "117.45 mm")]
    [InlineData(139.7, Units.InchEighths, "5 1/2 in")]
    [InlineData(9.525, Units.InchEighths, "3/8 in")]
    [InlineData(-19.05, Units.InchEighths, "-3/4 in")]
    [InlineData(50.8, Units.InchEighths, "2 in")]
    [InlineData(10, Units.InchEighths, "0.394 in")]
    [InlineData(139.7, Units.Inches, "5.5 in")]
    public void Fields_show_what_was_typed_and_round_what_was_computed(double mm, Units units, string shown) => Assert.Equal(shown, Length.InField(mm, units));

    [Theory]
    [InlineData("5 1/2", Units.InchEighths, 139.7)]
    [InlineData("5 1/2 in", Units.Millimetres, 139.7)]
    [InlineData("1/2in", Units.Millimetres, 12.7)]
    [InlineData("8 1/2\" - 3", Units.Inches, 139.7)]
    [InlineData("2 3/8 in * 2", Units.Millimetres, 120.65)]
    [InlineData("10 / 4", Units.Millimetres, 2.5)]
    public void Fractions_of_an_inch_are_read(string text, Units units, double mm)
    {
        Assert.Null(Length.Read(text, units, out var read));
        Assert.Equal(mm, read, 9);
    }
}
