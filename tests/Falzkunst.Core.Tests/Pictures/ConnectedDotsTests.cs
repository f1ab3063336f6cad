using CsCheck;
using Falzkunst.Core.Pictures;
using Falzkunst.Tests;
using Xunit;

namespace Falzkunst.Core.Tests.Pictures;

public sealed class ConnectedDotsTests
{
    [Fact]
    public void Parts_hold_every_dot_once_are_alike_and_hang_together_and_no_two_of_them_touch()
    {
        var fields = from width in Gen.Int[1, 14]
                     from height in Gen.Int[1, 14]
                     from values in Gen.Int[-1, 2].Array[width * height]
                     from overCorners in Gen.Bool
                     select (width, values, overCorners);
        fields.ForAll((width, values, overCorners) =>
        {
            var parts = ConnectedDots.Find(values, width, v => v >= 0, overCorners).ToList();
            Assert.Equal(Enumerable.Range(0, values.Length).Where(i => values[i] >= 0), parts.SelectMany(p => p).Order());
            bool Touch(int a, int b)
            {
                var (dx, dy) = (Math.Abs(a % width - b % width), Math.Abs(a / width - b / width));
                return overCorners ? Math.Max(dx, dy) == 1 : dx + dy == 1;
            }
            Assert.All(parts, p => Assert.Single(p.Select(i => values[i]).Distinct()));
            Assert.All(parts, p => Assert.All(p.Skip(1), i => Assert.Contains(p.TakeWhile(k => k != i), k => Touch(k, i))));
            for (var a = 0; a < parts.Count; a++)
            {
                for (var b = 0; b < a; b++)
                {
                    if (values[parts[a][0]] == values[parts[b][0]]) Assert.DoesNotContain(parts[a], i => parts[b].Any(k => Touch(i, k)));
                }
            }
        }, iter: 200);
    }
}
