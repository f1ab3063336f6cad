using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Tests.Projects;

/// <summary>The narrowest part that a project trusts a stock with.</summary>
public sealed class LeastWidthTests
{
    [Fact]
    public void What_is_set_for_the_project_goes_before_the_catalogue_until_it_is_taken_back()
    {
        var kraft = Given.Stock("kraft-240");
        Assert.Equal((0.85, false), WidthOf(SetOut.Default));
        var own = LeastWidth.Set(SetOut.Default, kraft, 0.6);
        Assert.Equal((0.6, true), WidthOf(own));
        Assert.Equal((0.85, false), WidthOf(LeastWidth.Set(own, kraft, null)));
        Assert.Equal(0.9, LeastWidth.ForStock(own, "mist-160", Given.Drawer).Mm);

        static (double, bool) WidthOf(SetOut setOut) => LeastWidth.ForStock(setOut, "kraft-240", Given.Drawer) is var least ? (least.Mm, least.IsOwn) : default;
    }

    [Theory]
    [InlineData(0.04)]
    [InlineData(11)]
    [InlineData(double.NaN)]
    public void Widths_out_of_reach_are_refused(double mm) =>
        Assert.Equal("width", Assert.Throws<EditRefused>(() => LeastWidth.Set(SetOut.Default, Given.Stock("kraft-240"), mm)).Field);

    [Fact]
    public void A_stock_that_is_not_in_the_drawer_is_trusted_with_what_most_bear() =>
        Assert.Equal((0.8, null), LeastWidth.ForStock(SetOut.Default, "gone", Given.Drawer) is var least ? (least.Mm, least.Stock) : default);
}
