using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Data.Rows;
using Microsoft.EntityFrameworkCore;

namespace Falzkunst.Data.Workshop;

/// <summary>Stocks and machines of a workshop.</summary>
public sealed class CatalogueStore(FalzkunstDb db, TimeProvider clock, DrawerCache cache)
{
    /// <summary>Everything at hand, in the drawer's order.</summary>
    /// <param name="owner">Whose drawer.</param>
    /// <param name="stop">Gives up.</param>
    /// <param name="version">Its version, where the caller has just read that.</param>
    public async Task<Drawer> DrawerAsync(Guid owner, CancellationToken stop, int? version = null)
    {
        var now = version ?? await db.Workshops.Where(w => w.Id == owner).Select(w => w.DrawerVersion).SingleAsync(stop);
        if (cache.Find(owner, now) is { } known) return known;
        var stocks = await db.Stocks.AsNoTracking().AsSplitQuery().Include(s => s.Sheets).Include(s => s.Offcuts).Include(s => s.Settings)
            .Where(s => s.Owner == owner).OrderBy(s => s.Position).ToListAsync(stop);
        var movements = await db.DrawerMovements.AsNoTracking().Where(m => m.Owner == owner).ToListAsync(stop);
        var machines = await db.Machines.AsNoTracking().Include(m => m.Holders)
            .Where(m => m.Owner == owner).OrderBy(m => m.Position).ToListAsync(stop);
        var drawer = new Drawer([.. stocks.Select(s => StockOf(s, [.. movements.Where(m => m.StockKey == s.Key)]))], [.. machines.Select(MachineOf)]);
        // A transaction that has not ended may be seen by nobody else; what it read is not kept.
        if (db.Database.CurrentTransaction is null) cache.Keep(owner, drawer, now);
        return drawer;
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

    /// <summary>Puts a rest into the drawer, and takes the sheet, or the offcut, that it was cut from out of it, for as long as the edit holds.</summary>
    /// <param name="owner">Whose drawer.</param>
    /// <param name="project">The project whose sheet was cut.</param>
    /// <param name="revision">The revision that the edit makes, in the transaction that is open.</param>
    /// <param name="sheet">The sheet that was cut.</param>
    /// <param name="rest">What is kept.</param>
    /// <param name="stop">Gives up.</param>
    /// <exception cref="DrawerChanged">An offcut of that name was kept meanwhile.</exception>
    public async Task KeepRestAsync(Guid owner, Guid project, int revision, SheetLayout sheet, Offcut rest, CancellationToken stop)
    {
        var movement = new DrawerMovementRow
        {
            Id = Guid.CreateVersion7(),
            Owner = owner,
            ProjectId = project,
            Revision = revision,
            SheetId = sheet.Id,
            StockKey = sheet.Stock,
            Took = sheet.SizeName,
            IsActive = true,
            At = clock.GetUtcNow(),
        };
        db.DrawerMovements.Add(movement);
        db.Add(new StockOffcutRow
        {
            Owner = owner,
            StockKey = sheet.Stock,
            Name = rest.Name,
            KeptAt = clock.GetUtcNow(),
            Movement = movement.Id,
            Outline = PathText.Write(rest.Outline),
            Holes = [.. rest.Holes.Select(h => PathText.Write(h))],
        });
        try
        {
            await db.SaveChangesAsync(stop);
        }
        catch (DbUpdateException e) when (e.IsTaken())
        {
            throw new DrawerChanged();
        }
        await db.Stocks.Where(s => s.Owner == owner && s.Key == sheet.Stock).ExecuteUpdateAsync(set => set.SetProperty(s => s.OffcutsMade, s => s.OffcutsMade + 1), stop);
        await ChangedAsync(owner, stop);
    }

    /// <summary>Throws an offcut away; nothing happens where it is gone already.</summary>
    public async Task RemoveOffcutAsync(Guid owner, string stock, string name, CancellationToken stop)
    {
        await db.Set<StockOffcutRow>().Where(o => o.Owner == owner && o.StockKey == stock && o.Name == name && o.ThrownAt == null)
            .ExecuteUpdateAsync(set => set.SetProperty(o => o.ThrownAt, clock.GetUtcNow()), stop);
        await ChangedAsync(owner, stop);
    }

    private Task<int> ChangedAsync(Guid owner, CancellationToken stop) =>
        db.Workshops.Where(w => w.Id == owner).ExecuteUpdateAsync(u => u.SetProperty(w => w.DrawerVersion, w => w.DrawerVersion + 1), stop);

    private static Stock StockOf(StockRow r, List<DrawerMovementRow> movements)
    {
        var active = movements.Where(m => m.IsActive).ToList();
        var inactive = movements.Where(m => !m.IsActive).Select(m => m.Id).ToHashSet();
        int Taken(string name) => active.Count(m => m.Took == name);
        return new(
            r.Key, r.Name, r.Kind, r.GramsPerSquareMetre, r.ThicknessMm, r.Colour, r.NarrowestMm,
            [.. r.Sheets.OrderBy(s => s.Position).Select(s => new SheetSize(s.Name, s.WidthMm, s.HeightMm, Math.Max(0, s.Count - Taken(s.Name))))],
            [.. r.Settings.Select(s => new ToolSettings(
                Enum.Parse<Tool>(s.Tool), s.ForceGrams, s.SpeedMmPerSecond, s.BladeOutMm, s.TemperatureCelsius, s.WarmUpSeconds, s.Times, s.NarrowestMm))])
        {
            BothSidesAlike = r.BothSidesAlike,
            OffcutsMade = r.OffcutsMade,
            Offcuts = [.. r.Offcuts
                .Where(o => o.ThrownAt is null && Taken(o.Name) == 0 && (o.Movement is not { } by || !inactive.Contains(by)))
                .OrderBy(o => o.KeptAt).ThenBy(o => o.Name, StringComparer.Ordinal)
                .Select(o => new Offcut(o.Name, PathText.Read(o.Outline), [.. o.Holes.Select(PathText.Read)]))],
        };
    }

    private static StockRow RowOf(Guid owner, Stock s, int position) => new()
    {
        Owner = owner,
        Key = s.Key,
        Position = position,
        Name = s.Name,
        Kind = s.Kind,
        GramsPerSquareMetre = s.GramsPerSquareMetre,
        ThicknessMm = s.ThicknessMm,
        Colour = s.Colour,
        NarrowestMm = s.NarrowestMm,
        BothSidesAlike = s.BothSidesAlike,
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
        Owner = owner,
        Key = m.Key,
        Position = position,
        Name = m.Name,
        MatWidthMm = m.MatWidthMm,
        MatHeightMm = m.MatHeightMm,
        BorderTopMm = m.Unreachable.Top,
        BorderRightMm = m.Unreachable.Right,
        BorderBottomMm = m.Unreachable.Bottom,
        BorderLeftMm = m.Unreachable.Left,
        ReadsMarks = m.ReadsMarks,
        TopSpeed = m.TopSpeed,
        Acceleration = m.Acceleration,
        LiftSeconds = m.LiftSeconds,
        Holders = [.. m.Holders.Select((h, i) => new HolderRow
        {
            Owner = owner, MachineKey = m.Key, Position = i, Name = h.Name, Tools = [.. h.Tools.Select(t => t.ToString())],
        })],
    };
}
