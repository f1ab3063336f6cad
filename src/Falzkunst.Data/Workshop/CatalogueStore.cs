using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Projects;
using Falzkunst.Data.Rows;
using Microsoft.EntityFrameworkCore;

namespace Falzkunst.Data.Workshop;

/// <summary>Stocks and machines of a workshop.</summary>
public sealed class CatalogueStore(FalzkunstDb db)
{
    /// <summary>Everything at hand, in the drawer's order.</summary>
    public async Task<Drawer> DrawerAsync(Guid owner, CancellationToken stop)
    {
        var stocks = await db.Stocks.AsNoTracking().AsSplitQuery().Include(s => s.Sheets).Include(s => s.Settings)
            .Where(s => s.Owner == owner).OrderBy(s => s.Position).ToListAsync(stop);
        var machines = await db.Machines.AsNoTracking().Include(m => m.Holders)
            .Where(m => m.Owner == owner).OrderBy(m => m.Position).ToListAsync(stop);
        return new Drawer([.. stocks.Select(StockOf)], [.. machines.Select(MachineOf)]);
    }

    /// <summary>Fills the drawer of a workshop that has nothing yet.</summary>
    public async Task SeedAsync(Guid owner, IReadOnlyList<Stock> stocks, IReadOnlyList<Machine> machines, CancellationToken stop)
    {
        if (await db.Stocks.AnyAsync(s => s.Owner == owner, stop) || await db.Machines.AnyAsync(m => m.Owner == owner, stop)) return;
        db.Stocks.AddRange(stocks.Select((s, i) => RowOf(owner, s, i)));
        db.Machines.AddRange(machines.Select((m, i) => RowOf(owner, m, i)));
        await db.SaveChangesAsync(stop);
        db.ChangeTracker.Clear();
    }

    private static Stock StockOf(StockRow r) => new(
        r.Key, r.Name, r.Kind, r.GramsPerSquareMetre, r.ThicknessMm, r.Colour, r.NarrowestMm,
        [.. r.Sheets.OrderBy(s => s.Position).Select(s => new SheetSize(s.Name, s.WidthMm, s.HeightMm, s.Count))],
        [.. r.Settings.Select(s => new ToolSettings(
            Enum.Parse<Tool>(s.Tool), s.ForceGrams, s.SpeedMmPerSecond, s.BladeOutMm, s.TemperatureCelsius, s.WarmUpSeconds, s.Times, s.NarrowestMm))]);

    private static StockRow RowOf(Guid owner, Stock s, int position) => new()
    {
        Owner = owner, Key = s.Key, Position = position, Name = s.Name, Kind = s.Kind, GramsPerSquareMetre = s.GramsPerSquareMetre,
        ThicknessMm = s.ThicknessMm, Colour = s.Colour, NarrowestMm = s.NarrowestMm,
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
