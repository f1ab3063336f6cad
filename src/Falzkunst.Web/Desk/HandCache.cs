using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Nesting;
using Falzkunst.Core.Nesting.Papers;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Microsoft.Extensions.Caching.Memory;

namespace Falzkunst.Web.Desk;

/// <summary>Layouts made ready for the hand, which asks many times a second while it moves.</summary>
public sealed class HandCache : IDisposable
{
    private const int MostLayouts = 30;

    /// <summary>The hand is held no farther from where it is, mm.</summary>
    private const double ReachMm = 25;

    private readonly MemoryCache _cache = new(new MemoryCacheOptions { SizeLimit = MostLayouts });

    /// <summary>Where copies come to lie when they are moved like that, and what stands in the way.</summary>
    /// <param name="on">The project.</param>
    /// <param name="move">The move.</param>
    /// <param name="holds">Where they may not lie as moved, the nearest place within reach is taken.</param>
    /// <exception cref="EditRefused">Something is not there any more.</exception>
    public (MovePlacements Move, EditRefused? WhyNot) Look(OnDesk on, MovePlacements move, bool holds)
    {
        var sheets = on.Value.Sheets;
        if (sheets is null || !on.Value.SheetsAreCurrent || sheets.Find(move.Sheet) is not { } sheet || sheets.Find(move.To) is not { } to || to.Stock != sheet.Stock)
            throw new EditRefused(Reason.SheetGone);
        var there = move.Copies.Select(c => sheet.Find(c.Piece, c.Copy)).OfType<Placement>().Select(p => p with { Place = p.Place.Then(move.Map) }).ToList();
        var hand = Get(on, sheet.Stock);
        if (!holds || hand.NearestMove(PlacingFaults.Placed(there), to.Id, ReachMm) is not { } by) return (move, PlacingFaults.WhyNot(hand, there, to, on.Value));
        return (move with { By = move.By + by }, null);
    }

    private HandPlacing Get(OnDesk on, string stock) => _cache.GetOrCreate((on.Project.Id, on.Project.Head, stock), entry =>
    {
        entry.Size = 1;
        entry.SlidingExpiration = TimeSpan.FromMinutes(5);
        return new HandPlacing(on.Value.Sheets!.ForStock(stock, on.Value.Made), on.Value.Made, on.Value.SpacingOn(stock, on.Value.Sheets.SpacingMm));
    })!;

    public void Dispose() => _cache.Dispose();
}
