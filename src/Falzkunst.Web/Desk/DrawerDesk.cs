using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Refusals;
using Falzkunst.Data.Workshop;

namespace Falzkunst.Web.Desk;

/// <summary>Changes things of the drawer, each named with the version that the user saw.</summary>
public sealed class DrawerDesk(DrawerStore store, CatalogueStore catalogue, TimeProvider clock)
{
    private static Guid Owner => ProjectDesk.Owner;

    public Task<Drawer> OpenAsync(CancellationToken stop) => catalogue.DrawerAsync(Owner, stop);

    /// <summary>A stock as a change makes it; nothing is written where it changes nothing.</summary>
    /// <param name="key">Its key.</param>
    /// <param name="version">The version that the user saw.</param>
    /// <param name="change">The change, given the stock and what to call it in the audit.</param>
    /// <param name="stop">Cancels.</param>
    /// <exception cref="ThingChanged">Somebody else changed it meanwhile.</exception>
    /// <exception cref="EditRefused">It would not be a stock any more, or there is none of that key.</exception>
    public async Task StockAsync(string key, int version, Func<Stock, (Stock After, string Sentence)> change, CancellationToken stop)
    {
        var now = (await OpenAsync(stop)).Stock(key);
        var (after, sentence) = change(now);
        if (after == now) return;
        await store.PutAsync(Owner, sentence, [after with { Version = version }], stop);
    }

    /// <summary>The same of a machine.</summary>
    public async Task MachineAsync(string key, int version, Func<Machine, (Machine After, string Sentence)> change, CancellationToken stop)
    {
        var now = (await OpenAsync(stop)).Machine(key);
        var (after, sentence) = change(now);
        if (after == now) return;
        await store.PutAsync(Owner, sentence, [after with { Version = version }], stop);
    }

    /// <summary>The same of a pen, foil, tip or blade.</summary>
    public async Task ToolAsync(string key, int version, Func<CraftTool, (CraftTool After, string Sentence)> change, CancellationToken stop)
    {
        var now = (await OpenAsync(stop)).Tools.FirstOrDefault(t => t.Key == key) ?? throw new EditRefused(Reason.NoSuchTool, key);
        var (after, sentence) = change(now);
        if (after == now) return;
        await store.PutAsync(Owner, sentence, [after with { Version = version }], stop);
    }

    /// <summary>A new stock: a copy of another, or a plain white card on letter and A4.</summary>
    /// <returns>Its key.</returns>
    public async Task<string> NewStockAsync(string? copyOf, CancellationToken stop)
    {
        var drawer = await OpenAsync(stop);
        var like = copyOf is null ? null : drawer.Stock(copyOf);
        var name = FreeName(like is null ? "New stock" : $"{like.Name} copy", drawer.Stocks.Select(s => s.Name));
        var key = DrawerRules.FreeKey(name, drawer.Stocks.Select(s => s.Key));
        var made = like is null
            ? new Stock(key, name, "", 200, 0.25, "#F3EEE1", 0.8, [SheetSizes.Named("A4")! with { Count = 10 }], [])
            : like with { Key = key, Name = name, Offcuts = [], OffcutsMade = 0, Version = 0, IsPutAway = false, IsFavourite = false };
        await store.PutAsync(Owner, like is null ? $"Added {name}" : $"Copied {like.Name}", [made], stop);
        return key;
    }

    /// <summary>A new machine: a copy of another, since whoever has one knows it by what differs.</summary>
    /// <returns>Its key.</returns>
    public async Task<string> NewMachineAsync(string copyOf, CancellationToken stop)
    {
        var drawer = await OpenAsync(stop);
        var like = drawer.Machine(copyOf);
        var name = FreeName($"{like.Name} copy", drawer.Machines.Select(m => m.Name));
        var key = DrawerRules.FreeKey(name, drawer.Machines.Select(m => m.Key));
        await store.PutAsync(Owner, $"Copied {like.Name}", [like with { Key = key, Name = name, Version = 0, IsPutAway = false }], stop);
        return key;
    }

    /// <summary>A new pen, foil, tip, blade or printer.</summary>
    /// <returns>Its key.</returns>
    public async Task<string> NewToolAsync(CraftToolKind kind, CancellationToken stop)
    {
        var drawer = await OpenAsync(stop);
        var name = FreeName($"New {Words(kind)}", drawer.Tools.Select(t => t.Name));
        var key = DrawerRules.FreeKey(name, drawer.Tools.Select(t => t.Key));
        var colour = kind is CraftToolKind.Pen or CraftToolKind.Foil ? "#4A4A4A" : null;
        double? width = kind is CraftToolKind.Printer ? PagePrinting.UsualMarginMm : kind is CraftToolKind.Pen ? 0.5 : kind is CraftToolKind.FoilTip or CraftToolKind.EmbossTip ? 1 : null;
        await store.PutAsync(Owner, $"Added {name}", [new CraftTool(key, kind, name, colour, width)], stop);
        return key;
    }

    /// <summary>What a kind of tool is called.</summary>
    public static string Words(CraftToolKind kind) => kind switch
    {
        CraftToolKind.Pen => "pen",
        CraftToolKind.Foil => "foil",
        CraftToolKind.FoilTip => "foil tip",
        CraftToolKind.EmbossTip => "emboss tip",
        CraftToolKind.ScoreTip => "score tip",
        CraftToolKind.Printer => "printer",
        _ => "blade",
    };

    /// <summary>
    /// Notes settings that worked for a tool in the set of a stock that is in use: they hold for all its sheets from now on.
    /// </summary>
    /// <param name="key">Key of the stock.</param>
    /// <param name="settings">The settings.</param>
    /// <param name="from">Where they were found, in words.</param>
    /// <param name="stop">Cancels.</param>
    public async Task KeepAsync(string key, ToolSettings settings, string from, CancellationToken stop)
    {
        var now = (await OpenAsync(stop)).Stock(key);
        var kept = now.With(now.SetInUse.Keeping(settings, new SettingNote(from, clock.GetUtcNow())));
        await store.PutAsync(Owner, $"Kept {settings.Tool.Name()} settings for {now.Name}, {from}", [kept], stop);
    }

    /// <summary>Settings of a stock set by hand.</summary>
    public Task SettingsAsync(string key, int version, Tool tool, Func<ToolSettings, ToolSettings> change, CancellationToken stop) => StockAsync(key, version, s =>
    {
        var settings = change(s.SettingsFor(tool));
        return s.SetInUse.For(tool) == settings ? (s, "")
            : (s.With(s.SetInUse.Keeping(settings, new SettingNote("typed in the drawer", clock.GetUtcNow()))), $"Set the {tool.Name()} of {s.Name}");
    }, stop);

    /// <summary>Takes the things of a file into the drawer: new ones beside what is there, or in place of what has the same key.</summary>
    /// <param name="file">The file's drawer.</param>
    /// <param name="replaces">Things of the same key are replaced; otherwise they come in under another.</param>
    /// <param name="stop">Cancels.</param>
    /// <returns>How many things came in.</returns>
    public async Task<int> TakeInAsync(Drawer file, bool replaces, CancellationToken stop)
    {
        var drawer = await OpenAsync(stop);
        var things = new List<IDrawerThing>();
        Take(file.Stocks, drawer.Stocks, (s, key, name, version) => s with { Key = key, Name = name, Version = version });
        Take(file.Machines, drawer.Machines, (m, key, name, version) => m with { Key = key, Name = name, Version = version });
        Take(file.Tools, drawer.Tools, (t, key, name, version) => t with { Key = key, Name = name, Version = version });
        if (things.Count > 0) await store.PutAsync(Owner, $"Took {things.Count} things in from a file", things, stop);
        return things.Count;

        void Take<T>(IEnumerable<T> come, IReadOnlyList<T> there, Func<T, string, string, int, T> called) where T : IDrawerThing
        {
            var (keys, names) = (there.Select(t => t.Key).ToList(), there.Where(t => !t.IsPutAway).Select(t => t.Name).ToList());
            foreach (var thing in come)
            {
                if (replaces && there.FirstOrDefault(t => t.Key == thing.Key) is { } former)
                {
                    things.Add(called(thing, thing.Key, thing.Name, former.Version));
                    continue;
                }
                keys.Add(keys.Contains(thing.Key) ? DrawerRules.FreeKey(thing.Name, keys) : thing.Key);
                names.Add(FreeName(thing.Name, names));
                things.Add(called(thing, keys[^1], names[^1], thing.Version));
            }
        }
    }

    private static string FreeName(string wished, IEnumerable<string> taken)
    {
        var names = taken.ToHashSet(StringComparer.OrdinalIgnoreCase);
        var name = wished.Length > DrawerRules.LongestName - 4 ? wished[..(DrawerRules.LongestName - 4)] : wished;
        return Enumerable.Range(1, names.Count + 1).Select(n => n == 1 ? name : $"{name} {n}").First(n => !names.Contains(n));
    }
}
