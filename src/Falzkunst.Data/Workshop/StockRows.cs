using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Data.Rows;

namespace Falzkunst.Data.Workshop;

/// <summary>Stocks as rows and back.</summary>
internal static class StockRows
{
    /// <summary>The stock of a row, what projects and runs took out of it taken off its counts.</summary>
    public static Stock StockOf(StockRow r, IReadOnlyList<DrawerMovementRow> movements)
    {
        var inactive = movements.Where(m => !m.IsActive).Select(m => m.Id).ToHashSet();
        var taken = Taken(movements);
        var sets = r.Sets.OrderBy(s => s.Position).Select(SetOf).ToList();
        var inUse = sets.Find(s => s.Name == r.SetInUse) ?? new SettingsSet(r.SetInUse, [], ImmutableSortedDictionary<Tool, SettingNote>.Empty);
        return new Stock(
            r.Key, r.Name, r.Kind, r.GramsPerSquareMetre, r.ThicknessMm, r.Colour, r.NarrowestMm,
            [.. r.Sheets.OrderBy(s => s.Position).Select(s => new SheetSize(s.Name, s.WidthMm, s.HeightMm, Math.Max(0, s.Count - taken.GetValueOrDefault(s.Name))))],
            inUse.Settings)
        {
            SetName = inUse.Name,
            Notes = inUse.Notes,
            OtherSets = [.. sets.Where(s => s != inUse)],
            BothSidesAlike = r.BothSidesAlike,
            Pattern = Enum.Parse<StockPattern>(r.Pattern),
            Direction = Enum.Parse<StockDirection>(r.Direction),
            Suits = [.. r.Suits.Select(Enum.Parse<Tool>)],
            TakesPrint = r.TakesPrint,
            IsFavourite = r.IsFavourite,
            IsPutAway = r.IsPutAway,
            Version = r.Version,
            OffcutsMade = Math.Max(r.OffcutsMade, r.Offcuts.Select(o => NumberOf(o.Name)).DefaultIfEmpty(0).Max()),
            Offcuts = [.. r.Offcuts
                .Where(o => o.ThrownAt is null && !taken.ContainsKey(o.Name) && (o.Movement is not { } by || !inactive.Contains(by)))
                .OrderBy(o => o.KeptAt).ThenBy(o => o.Name, StringComparer.Ordinal)
                .Select(o => new Offcut(o.Name, PathText.Read(o.Outline), [.. o.Holes.Select(PathText.Read)]).AtCorner())],
        };
    }

    /// <summary>The number in "Rest 12", so that names are counted from all rests that ever were, those used up and thrown away included; 0 for other names.</summary>
    private static int NumberOf(string name) =>
        name.StartsWith(Stock.RestName, StringComparison.Ordinal) && int.TryParse(name.AsSpan(Stock.RestName.Length), NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : 0;

    /// <summary>
    /// How many of each size, or offcut, are gone. A sheet that went through its run is gone once, whether its rest was kept before or
    /// after; run once more it is another sheet.
    /// </summary>
    public static Dictionary<string, int> Taken(IEnumerable<DrawerMovementRow> movements) => movements.Where(m => m.IsActive)
        .GroupBy(m => (m.ProjectId, m.SheetId, m.Took))
        .Select(g => (g.Key.Took, Count: Math.Max(g.Count(m => m.RunId is null), g.Count(m => m.RunId is not null))))
        .GroupBy(t => t.Took).ToDictionary(g => g.Key, g => g.Sum(t => t.Count));

    /// <summary>A row of a new stock.</summary>
    public static StockRow RowOf(Guid owner, Stock s, int position)
    {
        var row = new StockRow
        {
            Owner = owner,
            Key = s.Key,
            Position = position,
            Name = s.Name,
            Kind = s.Kind,
            Colour = s.Colour,
            Pattern = s.Pattern.ToString(),
            Direction = s.Direction.ToString(),
            SetInUse = s.SetName,
            Version = 1,
        };
        Write(row, s, [], DateTimeOffset.UnixEpoch);
        return row;
    }

    /// <summary>
    /// Writes a stock into its row. Counts get back what is taken from them; offcuts that are no longer there are thrown away, and those
    /// that are there again are taken back.
    /// </summary>
    public static void Write(StockRow row, Stock s, IReadOnlyList<DrawerMovementRow> movements, DateTimeOffset now)
    {
        var taken = Taken(movements);
        (row.Name, row.Kind, row.GramsPerSquareMetre, row.ThicknessMm, row.Colour, row.NarrowestMm) = (s.Name, s.Kind, s.GramsPerSquareMetre, s.ThicknessMm, s.Colour, s.NarrowestMm);
        (row.BothSidesAlike, row.TakesPrint, row.IsFavourite, row.IsPutAway) = (s.BothSidesAlike, s.TakesPrint, s.IsFavourite, s.IsPutAway);
        (row.Pattern, row.Direction, row.SetInUse, row.Suits) = (s.Pattern.ToString(), s.Direction.ToString(), s.SetName, [.. s.Suits.Select(t => t.ToString())]);
        Match(row.Sheets, s.Sheets, r => r.Name, h => h.Name,
            (h, i) => new StockSheetRow { Owner = row.Owner, StockKey = s.Key, Name = h.Name },
            (r, h, i) => (r.Position, r.WidthMm, r.HeightMm, r.Count) = (i, h.WidthMm, h.HeightMm, h.Count + taken.GetValueOrDefault(h.Name)));
        Match(row.Sets, [.. s.OtherSets.Prepend(s.SetInUse)], r => r.Name, t => t.Name,
            (t, i) => new StockSetRow { Owner = row.Owner, StockKey = s.Key, Name = t.Name },
            (r, t, i) =>
            {
                r.Position = i;
                Match(r.Settings, t.Settings, x => x.Tool, x => x.Tool.ToString(),
                    (x, _) => new StockSettingRow { Owner = row.Owner, StockKey = s.Key, SetName = t.Name, Tool = x.Tool.ToString() },
                    (y, x, _) => WriteSetting(y, x, t.Notes.GetValueOrDefault(x.Tool)));
            });
        var wanted = s.Offcuts.ToDictionary(o => o.Name);
        var there = StockOf(row, movements);
        foreach (var gone in there.Offcuts.Where(o => !wanted.ContainsKey(o.Name))) row.Offcuts.Single(o => o.Name == gone.Name).ThrownAt = now;
        var next = Math.Max(there.OffcutsMade, s.OffcutsMade);
        foreach (var (offcut, i) in s.Offcuts.Select((o, i) => (o, i)))
        {
            var known = row.Offcuts.Find(o => o.Name == offcut.Name);
            if (known is not null && known.ThrownAt is null && there.Offcuts.All(o => o.Name != offcut.Name))
            {
                // A project or a run has used up a rest of that name, which stays what it was: this is another one.
                row.Offcuts.Add(RowOf(row.Owner, s.Key, offcut with { Name = $"{Stock.RestName}{++next}" }, now.AddMilliseconds(i)));
            }
            else if (known is not null)
            {
                known.ThrownAt = null;
                (known.Outline, known.Holes) = (PathText.Write(offcut.Outline), [.. offcut.Holes.Select(h => PathText.Write(h))]);
            }
            // They are listed by when they came; those of one change in its order.
            else row.Offcuts.Add(RowOf(row.Owner, s.Key, offcut, now.AddMilliseconds(i)));
        }
        row.OffcutsMade = Math.Max(row.OffcutsMade, next);
    }

    private static StockOffcutRow RowOf(Guid owner, string stock, Offcut offcut, DateTimeOffset now) => new()
    {
        Owner = owner,
        StockKey = stock,
        Name = offcut.Name,
        KeptAt = now,
        Outline = PathText.Write(offcut.Outline),
        Holes = [.. offcut.Holes.Select(PathText.Write)],
    };

    private static void WriteSetting(StockSettingRow row, ToolSettings t, SettingNote? note)
    {
        (row.ForceGrams, row.SpeedMmPerSecond, row.BladeOutMm, row.TemperatureCelsius) = (t.ForceGrams, t.SpeedMmPerSecond, t.BladeOutMm, t.TemperatureCelsius);
        (row.WarmUpSeconds, row.Times, row.NarrowestMm, row.TipMm) = (t.WarmUpSeconds, t.Times, t.NarrowestMm, t.TipMm);
        (row.NotedFrom, row.NotedAt) = (note?.From, note?.At);
    }

    private static SettingsSet SetOf(StockSetRow r) => new(
        r.Name,
        [.. r.Settings.OrderBy(s => Enum.Parse<Tool>(s.Tool)).Select(s => new ToolSettings(
            Enum.Parse<Tool>(s.Tool), s.ForceGrams, s.SpeedMmPerSecond, s.BladeOutMm, s.TemperatureCelsius, s.WarmUpSeconds, s.Times, s.NarrowestMm, s.TipMm))],
        r.Settings.Where(s => s.NotedFrom is not null && s.NotedAt is not null)
            .ToImmutableSortedDictionary(s => Enum.Parse<Tool>(s.Tool), s => new SettingNote(s.NotedFrom!, s.NotedAt!.Value)));

    /// <summary>Makes rows those of some values: rows of no value go, values without a row get one, all are written.</summary>
    internal static void Match<TRow, TValue>(
        List<TRow> rows, IReadOnlyList<TValue> values, Func<TRow, string> nameOfRow, Func<TValue, string> nameOf, Func<TValue, int, TRow> make, Action<TRow, TValue, int> write)
    {
        var names = values.Select(nameOf).ToHashSet(StringComparer.Ordinal);
        rows.RemoveAll(r => !names.Contains(nameOfRow(r)));
        for (var i = 0; i < values.Count; i++)
        {
            var row = rows.Find(r => nameOfRow(r) == nameOf(values[i]));
            if (row is null) rows.Add(row = make(values[i], i));
            write(row, values[i], i);
        }
    }
}
