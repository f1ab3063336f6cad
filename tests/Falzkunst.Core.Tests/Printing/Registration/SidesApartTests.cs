using CsCheck;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Printing.Registration;
using Falzkunst.Tests;
using Xunit;

namespace Falzkunst.Core.Tests.Printing.Registration;

public sealed class SidesApartTests
{
    private const double Width = 210, Height = 297;

    private static readonly Affine Flip = Affine.Scale(-1, 1).Then(Affine.Move(Width, 0));

    [Fact]
    public void How_a_sheet_is_laid_counts_for_nothing_and_its_print_for_what_it_is()
    {
        var laid = from degrees in Gen.Double[-2, 2]
                   from x in Gen.Double[-4, 4]
                   from y in Gen.Double[-4, 4]
                   select Affine.Turn(degrees).About(new Point(Width / 2, Height / 2)).Then(Affine.Move(x, y));
        Gen.Select(laid, laid, Gen.Double[-0.01, 0.01], Gen.Double[-0.01, 0.01]).ForAll((face, back, across, down) =>
        {
            var print = Affine.Scale(1 + across, 1 + down).About(new Point(Width / 2, Height / 2));
            // Printed alike through the sheet; then with a back that is larger: by half of it at each edge.
            Assert.Equal(0, CutToPrint.SidesApart(Width, Height, print.Then(face), Flip.Then(print).Then(Flip).Then(back)), 1e-9);
            var apart = new Point(across * Width / 2, down * Height / 2).Length;
            Assert.Equal(apart, CutToPrint.SidesApart(Width, Height, face, print.Then(back)), 0.01 * apart + 1e-6);
        }, iter: 100);
    }
}
