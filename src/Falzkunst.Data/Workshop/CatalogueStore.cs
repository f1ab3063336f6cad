using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Data.Rows;
using Microsoft.EntityFrameworkCore;

namespace Falzkunst.Data.Workshop;

/// <summary>Stocks and machines of a workshop.</summary>
public sealed class CatalogueStore(FalzkunstDb db, TimeProvider clock, DrawerCache cache) : IDisposable
{
    private bool _wrote;

    /// <summary>Everything at hand, in the drawer's order.</summary>
    public async Task<Drawer> DrawerAsync(Guid owner, CancellationToken stop)
    {
        if (!_wrote && cache.Find(owner) is { } known) return known;
        var asOf = cache.Version;
        var stocks = await db.Stocks.AsNoTracking().AsSplitQuery().Include(s => s.Sheets).Include(s => s.Offcuts).Include(s => s.Settings)
            .Where(s => s.Owner == owner).OrderBy(s => s.Position).ToListAsync(stop);
        var machines = await db.Machines.AsNoTracking().Include(m => m.Holders)
            .Where(m => m.Owner == owner).OrderBy(m => m.Position).ToListAsync(stop);
        var drawer = new Drawer([.. stocks.Select(StockOf)], [.. machines.Select(MachineOf)]);
        if (!_wrote) cache.Keep(owner, drawer, asOf);
        return drawer;
    }

    /// <summary>Fills the drawer of a workshop that has nothing yet.</summary>
    public async Task SeedAsync(Guid owner, IReadOnlyList<Stock> stocks, IReadOnlyList<Machine> machines, CancellationToken stop)
    {
        Writes();
        if (await db.Stocks.AnyAsync(s => s.Owner == owner, stop) || await db.Machines.AnyAsync(m => m.Owner == owner, stop)) return;
        db.Stocks.AddRange(stocks.Select((s, i) => RowOf(owner, s, i)));
        db.Machines.AddRange(machines.Select((m, i) => RowOf(owner, m, i)));
        await db.SaveChangesAsync(stop);
        db.ChangeTracker.Clear();
    }

    /// <summary>Puts a rest into the drawer, and takes the sheet, or the offcut, that it was cut from out of it; both or neither, in the transaction that is open or in one of its own.</summary>
    /// <param name="owner">Whose drawer.</param>
    /// <param name="stock">Key of the stock.</param>
    /// <param name="rest">What is kept.</param>
    /// <param name="cutFrom">Name of the sheet's size or of the offcut.</param>
    /// <param name="stop">Gives up.</param>
    public async Task KeepRestAsync(Guid owner, string stock, Offcut rest, string cutFrom, CancellationToken stop)
    {
        Writes();
        await using var own = db.Database.CurrentTransaction is null ? await db.Database.BeginTransactionAsync(stop) : null;
        await db.Set<StockSheetRow>().Where(s => s.Owner == owner && s.StockKey == stock && s.Name == cutFrom && s.Count > 0)
            .ExecuteUpdateAsync(set => set.SetProperty(s => s.Count, s => s.Count - 1), stop);
        await RemoveOffcutAsync(owner, stock, cutFrom, stop);
        var row = db.Add(new StockOffcutRow
        {
            Owner = owner, StockKey = stock, Name = rest.Name, KeptAt = clock.GetUtcNow(),
            Outline = PathText.Write(rest.Outline), Holes = [.. rest.Holes.Select(h => PathText.Write(h))],
        });
        await db.SaveChangesAsync(stop);
        if (own is not null) await own.CommitAsync(stop);
        row.State = EntityState.Detached;
    }

    /// <summary>Throws an offcut away; nothing happens where it is gone already.</summary>
    public Task RemoveOffcutAsync(Guid owner, string stock, string name, CancellationToken stop)
    {
        Writes();
        return db.Set<StockOffcutRow>().Where(o => o.Owner == owner && o.StockKey == stock && o.Name == name).ExecuteDeleteAsync(stop);
    }

    /// <summary>From here on this store reads the database itself: it may see what its transaction has not committed yet.</summary>
    private void Writes()
    {
        _wrote = true;
        cache.Forget();
    }

    /// <summary>The transaction is over: what others read and kept while it was open is forgotten too.</summary>
    public void Dispose()
    {
        if (_wrote) cache.Forget();
    }

    private static Stock StockOf(StockRow r) => new(
        r.Key, r.Name, r.Kind, r.GramsPerSquareMetre, r.ThicknessMm, r.Colour, r.NarrowestMm,
        [.. r.Sheets.OrderBy(s => s.Position).Select(s => new SheetSize(s.Name, s.WidthMm, s.HeightMm, s.Count))],
        [.. r.Settings.Select(s => new ToolSettings(
            Enum.Parse<Tool>(s.Tool), s.ForceGrams, s.SpeedMmPerSecond, s.BladeOutMm, s.TemperatureCelsius, s.WarmUpSeconds, s.Times, s.NarrowestMm))])
    {
        BothSidesAlike = r.BothSidesAlike,
        Offcuts = [.. r.Offcuts.OrderBy(o => o.KeptAt).ThenBy(o => o.Name, StringComparer.Ordinal)
            .Select(o => new Offcut(o.Name, PathText.Read(o.Outline), [.. o.Holes.Select(PathText.Read)]))],
    };

    private static StockRow RowOf(Guid owner, Stock s, int position) => new()
    {
        Owner = owner, Key = s.Key, Position = position, Name = s.Name, Kind = s.Kind, GramsPerSquareMetre = s.GramsPerSquareMetre,
        ThicknessMm = s.ThicknessMm, Colour = s.Colour, NarrowestMm = s.NarrowestMm, BothSidesAlike = s.BothSidesAlike,
        Sheets = [.. s.Sheets.Select((h, i) => new StockSheetRow
        {
            Owner = owner, StockKey = s.Key, Position = i, Name = h.Name, WidthMm = h.WidthMm, HeightMm = h.HeightMm, Count = h.Count,
        })],
        Settings = [.. s.Settings.Select(t => new StockSettingRow
        {
            Owner = owner, StockKey = s.Key, Tool = t.Tool.ToString(), ForceGrams = t.ForceGrams, SpeedMmPerSecond = t.SpeedMmPerSecond,
            BladeOutMm = t.BladeOutMm, TemperatureCelsius = t.TemperatureCelsius, WarmUpSeconds = t.WarmUpSeconds, Times = t.Times, NarrowestMm = t.NarrowestMm,
        })],
    };

    private static Machine MachineOf(MachineRow r) => new(
        r.Key, r.Name, r.MatWidthMm, r.MatHeightMm, new Borders(r.BorderTopMm, r.BorderRightMm, r.BorderBottomMm, r.BorderLeftMm),
        [.. r.Holders.OrderBy(h => h.Position).Select(h => new Holder(h.Name, [.. h.Tools.Select(Enum.Parse<Tool>)]))],
        r.ReadsMarks, r.TopSpeed, r.Acceleration, r.LiftSeconds);

    private static MachineRow RowOf(Guid owner, Machine m, int position) => new()
    {
        Owner = owner, Key = m.Key, Position = position, Name = m.Name, MatWidthMm = m.MatWidthMm, MatHeightMm = m.MatHeightMm,
        BorderTopMm = m.Unreachable.Top, BorderRightMm = m.Unreachable.Right, BorderBottomMm = m.Unreachable.Bottom, BorderLeftMm = m.Unreachable.Left,
        ReadsMarks = m.ReadsMarks, TopSpeed = m.TopSpeed, Acceleration = m.Acceleration, LiftSeconds = m.LiftSeconds,
        Holders = [.. m.Holders.Select((h, i) => new HolderRow
        {
            Owner = owner, MachineKey = m.Key, Position = i, Name = h.Name, Tools = [.. h.Tools.Select(t => t.ToString())],
        })],
    };
}
