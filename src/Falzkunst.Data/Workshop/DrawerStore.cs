using System.Text.Json.Nodes;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Refusals;
using Falzkunst.Data.Json;
using Falzkunst.Data.Rows;
using Microsoft.EntityFrameworkCore;

namespace Falzkunst.Data.Workshop;

/// <summary>A change of the drawer as the audit tells it.</summary>
/// <param name="Number">1 for the first.</param>
/// <param name="Sentence">What was done.</param>
/// <param name="At">When.</param>
/// <param name="UndoneAt">When it was taken back; null while it holds.</param>
/// <param name="Keys">Keys of the things that it was about.</param>
public sealed record DrawerChange(int Number, string Sentence, DateTimeOffset At, DateTimeOffset? UndoneAt, IReadOnlyList<string> Keys);

/// <summary>What can be taken back and done again.</summary>
/// <param name="Undo">The change that undo takes back; null for none.</param>
/// <param name="Redo">The change that redo does again; null for none.</param>
public sealed record DrawerHistory(DrawerChange? Undo, DrawerChange? Redo);

/// <summary>
/// Changes the drawer. One change may be about several things; each is named with the version that it was made on, and all are written
/// with the audit in one transaction. Changes wait for each other at the workshop's row.
/// </summary>
public sealed class DrawerStore(FalzkunstDb db, CatalogueStore catalogue, TimeProvider clock)
{
    private const string StockKind = "stock", MachineKind = "machine", ToolKind = "tool";

    /// <summary>Puts stocks, machines and tools into the drawer, new ones or others in place of what was there.</summary>
    /// <param name="owner">Whose drawer.</param>
    /// <param name="sentence">What is done, for the audit.</param>
    /// <param name="things">The things with the version that they were made on; 0 for new ones.</param>
    /// <param name="stop">Gives up.</param>
    /// <exception cref="ThingChanged">One of them was changed meanwhile; nothing was written.</exception>
    /// <exception cref="EditRefused">One of them is not as things of a drawer are; nothing was written.</exception>
    public async Task PutAsync(Guid owner, string sentence, IReadOnlyList<IDrawerThing> things, CancellationToken stop)
    {
        foreach (var thing in things) Demand(thing);
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        var drawer = await LockedAsync(owner, stop);
        var change = await ChangeAsync(owner, sentence, stop);
        foreach (var thing in things)
        {
            var (kind, key) = (KindOf(thing), thing.Key);
            var now = Find(drawer, kind, key);
            if (thing.Version != (now?.Version ?? 0)) throw new ThingChanged((now ?? thing).Name, await LastAsync(owner, kind, key, stop));
            DemandFreeName(drawer, thing, things);
            await WriteAsync(owner, drawer, thing, stop);
            change.Things.Add(new DrawerChangeThingRow { Kind = kind, Key = key, Before = now is null ? null : DrawerJson.Document(now), After = DrawerJson.Document(thing) });
        }
        db.DrawerChanges.Add(change);
        await DoneAsync(owner, transaction, stop);
    }

    /// <summary>Throws an offcut away; nothing happens where it is gone already.</summary>
    public async Task ThrowOffcutAsync(Guid owner, string stock, string name, CancellationToken stop)
    {
        var drawer = await catalogue.DrawerAsync(owner, stop);
        if (drawer.Stocks.FirstOrDefault(s => s.Key == stock) is not { } now || now.Offcuts.FirstOrDefault(o => o.Name == name) is not { } offcut) return;
        await PutAsync(owner, $"Threw {name} of {now.Name} away", [now with { Offcuts = now.Offcuts.Remove(offcut) }], stop);
    }

    /// <summary>So many changes can be taken back and are told; older ones are forgotten.</summary>
    public const int MostChanges = 500;

    /// <summary>Takes out the audit's oldest changes. Those that hold hold on: only what they were before is forgotten.</summary>
    public Task<int> ForgetOldChangesAsync(CancellationToken stop) => db.DrawerChanges
        .Where(c => c.Number <= db.DrawerChanges.Where(n => n.Owner == c.Owner).Max(n => n.Number) - MostChanges).ExecuteDeleteAsync(stop);

    /// <summary>The newest changes, newest first.</summary>
    public async Task<List<DrawerChange>> ChangesAsync(Guid owner, int most, CancellationToken stop)
    {
        var rows = await db.DrawerChanges.AsNoTracking().Include(c => c.Things).Where(c => c.Owner == owner).OrderByDescending(c => c.Number).Take(most).ToListAsync(stop);
        return [.. rows.Select(Told)];
    }

    /// <summary>What undo and redo would do now.</summary>
    public async Task<DrawerHistory> HistoryAsync(Guid owner, CancellationToken stop)
    {
        var (undo, redo) = (await UndoableAsync(owner, stop), await RedoableAsync(owner, stop));
        return new(undo is null ? null : Told(undo), redo is null ? null : Told(redo));
    }

    /// <summary>Takes the last change back that holds. What has been changed since in other parts of a thing stays.</summary>
    /// <exception cref="NothingInDrawer">There is none.</exception>
    /// <exception cref="ThingChanged">The same part was changed since by something that is no change of the drawer, a kept rest say.</exception>
    public Task<DrawerChange> UndoAsync(Guid owner, CancellationToken stop) => MoveAsync(owner, UndoableAsync, isBack: true, stop);

    /// <summary>Does the change again that was taken back last, as long as nothing new was done.</summary>
    /// <exception cref="NothingInDrawer">There is none.</exception>
    /// <exception cref="ThingChanged">The same part was changed since.</exception>
    public Task<DrawerChange> RedoAsync(Guid owner, CancellationToken stop) => MoveAsync(owner, RedoableAsync, isBack: false, stop);

    private async Task<DrawerChange> MoveAsync(Guid owner, Func<Guid, CancellationToken, Task<DrawerChangeRow?>> which, bool isBack, CancellationToken stop)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        var drawer = await LockedAsync(owner, stop);
        var change = await which(owner, stop) ?? throw new NothingInDrawer();
        foreach (var thing in change.Things)
        {
            var now = Find(drawer, thing.Kind, thing.Key) ?? throw new ThingChanged(thing.Key, null);
            await WriteAsync(owner, drawer, Moved(now, thing, isBack), stop);
        }
        var row = await db.DrawerChanges.SingleAsync(c => c.Id == change.Id, stop);
        row.UndoneAt = isBack ? clock.GetUtcNow() : null;
        await DoneAsync(owner, transaction, stop);
        return Told(change);
    }

    /// <summary>
    /// A thing with each part that the change was about as it was before it, or after it; other parts stay as they are now. What was new
    /// is put away, since a project may have taken it already.
    /// </summary>
    private static IDrawerThing Moved(IDrawerThing now, DrawerChangeThingRow change, bool isBack)
    {
        if (change.Before is null) return PutAway(now, isBack);
        var (from, to) = isBack ? (change.After, change.Before) : (change.Before, change.After);
        var (was, wanted, thing) = (JsonNode.Parse(from)!.AsObject(), JsonNode.Parse(to)!.AsObject(), JsonNode.Parse(DrawerJson.Document(now))!.AsObject());
        foreach (var part in was.Select(p => p.Key).Union(wanted.Select(p => p.Key)).ToList())
        {
            if (JsonNode.DeepEquals(was[part], wanted[part])) continue;
            thing[part] = ThreeWay.TryMerge(thing[part], was[part], wanted[part], out var merged) ? merged : throw new ThingChanged(now.Name, null);
        }
        return now switch
        {
            Stock s => DrawerJson.StockFrom(thing) with { Version = s.Version, OffcutsMade = s.OffcutsMade },
            Machine m => DrawerJson.MachineFrom(thing) with { Version = m.Version },
            CraftTool t => DrawerJson.ToolFrom(thing) with { Version = t.Version },
            _ => throw new InvalidOperationException("No thing of a drawer."),
        };
    }

    private static IDrawerThing PutAway(IDrawerThing thing, bool isPutAway) => thing switch
    {
        Stock s => s with { IsPutAway = isPutAway },
        Machine m => m with { IsPutAway = isPutAway },
        CraftTool t => t with { IsPutAway = isPutAway },
        _ => throw new InvalidOperationException("No thing of a drawer."),
    };

    private Task<DrawerChangeRow?> UndoableAsync(Guid owner, CancellationToken stop) => db.DrawerChanges.AsNoTracking().Include(c => c.Things)
        .Where(c => c.Owner == owner && c.UndoneAt == null).OrderByDescending(c => c.Number).FirstOrDefaultAsync(stop);

    /// <summary>The first of those taken back that nothing new came after, though that was taken back as well.</summary>
    private Task<DrawerChangeRow?> RedoableAsync(Guid owner, CancellationToken stop) => db.DrawerChanges.AsNoTracking().Include(c => c.Things)
        .Where(c => c.Owner == owner && c.UndoneAt != null && !db.DrawerChanges.Any(n => n.Owner == owner && n.Number > c.Number && (n.UndoneAt == null || n.At >= c.UndoneAt)))
        .OrderBy(c => c.Number).FirstOrDefaultAsync(stop);

    private async Task<string?> LastAsync(Guid owner, string kind, string key, CancellationToken stop) => await db.DrawerChanges.AsNoTracking()
        .Where(c => c.Owner == owner && c.Things.Any(t => t.Kind == kind && t.Key == key)).OrderByDescending(c => c.Number).Select(c => c.Sentence).FirstOrDefaultAsync(stop);

    /// <summary>The drawer as it is, with the workshop's row held until the transaction ends.</summary>
    private async Task<Drawer> LockedAsync(Guid owner, CancellationToken stop)
    {
        await db.Database.ExecuteSqlAsync($"select 1 from workshops where id = {owner} for update", stop);
        return await catalogue.DrawerAsync(owner, stop);
    }

    private async Task<DrawerChangeRow> ChangeAsync(Guid owner, string sentence, CancellationToken stop) => new()
    {
        Id = Guid.CreateVersion7(),
        Owner = owner,
        Number = 1 + (await db.DrawerChanges.Where(c => c.Owner == owner).MaxAsync(c => (int?)c.Number, stop) ?? 0),
        At = clock.GetUtcNow(),
        Sentence = sentence,
    };

    private async Task DoneAsync(Guid owner, Microsoft.EntityFrameworkCore.Storage.IDbContextTransaction transaction, CancellationToken stop)
    {
        try
        {
            await db.SaveChangesAsync(stop);
        }
        catch (DbUpdateConcurrencyException e)
        {
            throw new ThingChanged(e.Entries[0].Entity is StockRow s ? s.Name : "It", null);
        }
        await db.DrawerChangedAsync(owner, stop);
        await transaction.CommitAsync(stop);
        db.ChangeTracker.Clear();
    }

    private async Task WriteAsync(Guid owner, Drawer drawer, IDrawerThing thing, CancellationToken stop)
    {
        switch (thing)
        {
            case Stock s:
                var stock = await db.Stocks.AsSplitQuery().Include(r => r.Sheets).Include(r => r.Offcuts).Include(r => r.Sets).ThenInclude(r => r.Settings)
                    .SingleOrDefaultAsync(r => r.Owner == owner && r.Key == s.Key, stop);
                var movements = await db.DrawerMovements.AsNoTracking().Where(m => m.Owner == owner && m.StockKey == s.Key).ToListAsync(stop);
                if (stock is null)
                {
                    db.Stocks.Add(StockRows.RowOf(owner, s, 1 + drawer.Stocks.Length));
                    break;
                }
                StockRows.Write(stock, s, movements, clock.GetUtcNow());
                stock.Version++;
                break;
            case Machine m:
                var machine = await db.Machines.AsSplitQuery().Include(r => r.Holders).Include(r => r.OtherMats).Include(r => r.Files).SingleOrDefaultAsync(r => r.Owner == owner && r.Key == m.Key, stop);
                if (machine is null)
                {
                    db.Machines.Add(MachineRows.RowOf(owner, m, 1 + drawer.Machines.Length));
                    break;
                }
                MachineRows.Write(machine, m);
                machine.Version++;
                break;
            case CraftTool t:
                var tool = await db.CraftTools.SingleOrDefaultAsync(r => r.Owner == owner && r.Key == t.Key, stop);
                if (tool is null)
                {
                    db.CraftTools.Add(MachineRows.RowOf(owner, t, 1 + drawer.Tools.Length));
                    break;
                }
                MachineRows.Write(tool, t);
                tool.Version++;
                break;
        }
    }

    private static void Demand(IDrawerThing thing)
    {
        switch (thing)
        {
            case Stock s: DrawerRules.Demand(s); break;
            case Machine m: DrawerRules.Demand(m); break;
            case CraftTool t: DrawerRules.Demand(t); break;
            default: throw new ArgumentException("No thing of a drawer.", nameof(thing));
        }
    }

    /// <summary>No two things that are offered are called the same, and a drawer holds so many.</summary>
    private static void DemandFreeName(Drawer drawer, IDrawerThing thing, IReadOnlyList<IDrawerThing> together)
    {
        IEnumerable<IDrawerThing> all = thing switch
        {
            Stock => drawer.Stocks,
            Machine => drawer.Machines,
            _ => drawer.Tools,
        };
        var alike = together.Where(t => t.GetType() == thing.GetType()).ToList();
        var others = all.Where(o => !alike.Exists(t => t.Key == o.Key)).Concat(alike.Where(t => t != thing)).ToList();
        if (others.Count >= DrawerRules.MostThings) throw new EditRefused(Reason.TooManyInDrawer, DrawerRules.MostThings);
        if (!thing.IsPutAway && others.Any(o => !o.IsPutAway && string.Equals(o.Name, thing.Name, StringComparison.OrdinalIgnoreCase)))
            throw new EditRefused(Reason.NameTaken, thing.Name) { Field = "name" };
    }

    private static IDrawerThing? Find(Drawer drawer, string kind, string key) => kind switch
    {
        StockKind => drawer.Stocks.FirstOrDefault(s => s.Key == key),
        MachineKind => drawer.Machines.FirstOrDefault(m => m.Key == key),
        _ => drawer.Tools.FirstOrDefault(t => t.Key == key),
    };

    private static string KindOf(IDrawerThing thing) => thing switch { Stock => StockKind, Machine => MachineKind, _ => ToolKind };

    private static DrawerChange Told(DrawerChangeRow row) => new(row.Number, row.Sentence, row.At, row.UndoneAt, [.. row.Things.Select(t => t.Key)]);
}
