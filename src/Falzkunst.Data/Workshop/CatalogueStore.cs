using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Texts;
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
        var stocks = await db.Stocks.AsNoTracking().AsSplitQuery().Include(s => s.Sheets).Include(s => s.Offcuts).Include(s => s.Sets).ThenInclude(s => s.Settings)
            .Where(s => s.Owner == owner).OrderBy(s => s.Position).ThenBy(s => s.Key).ToListAsync(stop);
        var movements = await db.DrawerMovements.AsNoTracking().Where(m => m.Owner == owner).ToListAsync(stop);
        var machines = await db.Machines.AsNoTracking().AsSplitQuery().Include(m => m.Holders).Include(m => m.OtherMats).Include(m => m.Files)
            .Where(m => m.Owner == owner).OrderBy(m => m.Position).ThenBy(m => m.Key).ToListAsync(stop);
        var tools = await db.CraftTools.AsNoTracking().Where(t => t.Owner == owner).OrderBy(t => t.Position).ThenBy(t => t.Key).ToListAsync(stop);
        var faces = await db.Faces.AsNoTracking().Where(f => f.Owner == owner).OrderBy(f => f.Name).ThenBy(f => f.Key).Select(f => new { f.Key, f.Name, f.IsStroke }).ToListAsync(stop);
        var drawer = new Drawer([.. stocks.Select(s => StockRows.StockOf(s, [.. movements.Where(m => m.StockKey == s.Key)]))], [.. machines.Select(MachineRows.MachineOf)])
        {
            Tools = [.. tools.Select(MachineRows.ToolOf)],
            OwnFaces = [.. faces.Select(f => new FaceName(f.Key, f.Name, f.IsStroke ? FaceKind.SingleLine : FaceKind.Plain) { IsOwn = true })],
        };
        // A transaction that has not ended may be seen by nobody else; what it read is not kept.
        if (db.Database.CurrentTransaction is null) cache.Keep(owner, drawer, now);
        return drawer;
    }

    /// <summary>Fills the drawer of a workshop that has nothing yet, and gives one of former times its first tools.</summary>
    public async Task SeedAsync(Guid owner, Drawer first, CancellationToken stop)
    {
        if (!await db.Stocks.AnyAsync(s => s.Owner == owner, stop) && !await db.Machines.AnyAsync(m => m.Owner == owner, stop))
        {
            db.Stocks.AddRange(first.Stocks.Select((s, i) => StockRows.RowOf(owner, s, i)));
            db.Machines.AddRange(first.Machines.Select((m, i) => MachineRows.RowOf(owner, m, i)));
        }
        if (!await db.CraftTools.AnyAsync(t => t.Owner == owner, stop)) db.CraftTools.AddRange(first.Tools.Select((t, i) => MachineRows.RowOf(owner, t, i)));
        // Printers came later than the other tools.
        else if (!await db.CraftTools.AnyAsync(t => t.Owner == owner && t.Kind == Printer, stop))
            db.CraftTools.AddRange(first.Tools.Select((t, i) => (Tool: t, Position: i)).Where(t => t.Tool.Kind == CraftToolKind.Printer).Select(t => MachineRows.RowOf(owner, t.Tool, t.Position)));
        await db.SaveChangesAsync(stop);
        db.ChangeTracker.Clear();
    }

    private const string Printer = nameof(CraftToolKind.Printer);

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
        await db.DrawerChangedAsync(owner, stop);
    }
}
