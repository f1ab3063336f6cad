using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Running;
using Falzkunst.Web.Wording;
using Microsoft.Extensions.Caching.Memory;

namespace Falzkunst.Web.Desk;

/// <summary>
/// Plans of sheets. A plan follows from a revision, a sheet, its stock and the machine; a page that asks several times a second
/// where a run stands plans nothing anew.
/// </summary>
public sealed class PlanCache : IDisposable
{
    private const int MostPlans = 300;
    private readonly MemoryCache _cache = new(new MemoryCacheOptions { SizeLimit = MostPlans });

    /// <summary>The plan of a sheet of the project as it is on the desk, or the sentence that says why there is none.</summary>
    public (RunPlan? Plan, string? Refusal) Get(OnDesk on, SheetLayout sheet)
    {
        var machine = on.Drawer.Machine(on.Value.SetOut.Machine);
        var stock = on.Drawer.Stock(sheet.Stock);
        var key = (on.Project.Id, on.Project.Head, sheet.Id, Fingerprint(stock), Fingerprint(machine));
        if (_cache.TryGetValue(key, out (RunPlan?, string?) kept)) return kept;
        return _cache.Set(key, Make(on.PlanOf(sheet)), new MemoryCacheEntryOptions { Size = 1, SlidingExpiration = TimeSpan.FromMinutes(10) });
    }

    private static (RunPlan?, string?) Make(PlanRequest request)
    {
        try
        {
            return (SheetPlan.For(request), null);
        }
        catch (PlanRefused e)
        {
            return (null, RunWords.For(e));
        }
    }

    // What of the catalogue goes into a plan, as text that differs where it does.
    private static string Fingerprint(Stock s) => $"{s.Name}|{s.GramsPerSquareMetre}|{s.ThicknessMm}|{string.Join('|', s.Settings)}";
    private static string Fingerprint(Machine m) => $"{m}|{string.Join('|', m.Holders.Select(h => $"{h.Name} {string.Join(',', h.Tools)}"))}";

    public void Dispose() => _cache.Dispose();
}
