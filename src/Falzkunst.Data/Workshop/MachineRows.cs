using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Data.Json;
using Falzkunst.Data.Rows;

namespace Falzkunst.Data.Workshop;

/// <summary>Machines and tools as rows and back.</summary>
internal static class MachineRows
{
    public static Machine MachineOf(MachineRow r) => new(
        r.Key, r.Name, r.MatWidthMm, r.MatHeightMm, new Borders(r.BorderTopMm, r.BorderRightMm, r.BorderBottomMm, r.BorderLeftMm),
        [.. r.Holders.OrderBy(h => h.Position).Select(h => new Holder(h.Name, [.. h.Tools.Select(Enum.Parse<Tool>)]))],
        r.ReadsMarks, r.TopSpeed, r.Acceleration, r.LiftSeconds)
    {
        MatName = r.MatName,
        OtherMats = [.. r.OtherMats.OrderBy(m => m.Position).Select(m => new Mat(m.Name, m.WidthMm, m.HeightMm))],
        Files = r.Files.Count == 0 ? MachineFile.Usual
            : [.. r.Files.OrderBy(f => f.Position).Select(f => new MachineFile(Enum.Parse<MachineFormat>(f.Format), f.UnitsPerMm, Enum.Parse<FileOrigin>(f.Origin)))],
        IsPutAway = r.IsPutAway,
        Version = r.Version,
        Calibrations = r.Calibrations is { } measured ? [.. StoredJson.Read<ImmutableArray<Calibration>>(measured).Where(c => c.IsSound)] : [],
    };

    /// <summary>A row of a new machine.</summary>
    public static MachineRow RowOf(Guid owner, Machine m, int position)
    {
        var row = new MachineRow { Owner = owner, Key = m.Key, Position = position, Name = m.Name, MatName = m.MatName, Version = 1 };
        Write(row, m);
        return row;
    }

    public static void Write(MachineRow row, Machine m)
    {
        (row.Name, row.MatName, row.MatWidthMm, row.MatHeightMm, row.IsPutAway) = (m.Name, m.MatName, m.MatWidthMm, m.MatHeightMm, m.IsPutAway);
        (row.BorderTopMm, row.BorderRightMm, row.BorderBottomMm, row.BorderLeftMm) = (m.Unreachable.Top, m.Unreachable.Right, m.Unreachable.Bottom, m.Unreachable.Left);
        row.Calibrations = m.Calibrations.IsEmpty ? null : StoredJson.Write(m.Calibrations);
        (row.ReadsMarks, row.TopSpeed, row.Acceleration, row.LiftSeconds) = (m.ReadsMarks, m.TopSpeed, m.Acceleration, m.LiftSeconds);
        StockRows.Match(row.Holders, m.Holders, r => r.Name, h => h.Name,
            (h, _) => new HolderRow { Owner = row.Owner, MachineKey = m.Key, Name = h.Name, Tools = [] },
            (r, h, i) => (r.Position, r.Tools) = (i, [.. h.Tools.Select(t => t.ToString())]));
        StockRows.Match(row.OtherMats, m.OtherMats, r => r.Name, t => t.Name,
            (t, _) => new MachineMatRow { Owner = row.Owner, MachineKey = m.Key, Name = t.Name },
            (r, t, i) => (r.Position, r.WidthMm, r.HeightMm) = (i, t.WidthMm, t.HeightMm));
        StockRows.Match(row.Files, m.Files, r => r.Format, f => f.Format.ToString(),
            (f, _) => new MachineFileRow { Owner = row.Owner, MachineKey = m.Key, Format = f.Format.ToString(), Origin = "" },
            (r, f, i) => (r.Position, r.UnitsPerMm, r.Origin) = (i, f.UnitsPerMm, f.Origin.ToString()));
    }

    public static CraftTool ToolOf(CraftToolRow r) => new(r.Key, Enum.Parse<CraftToolKind>(r.Kind), r.Name, r.Colour, r.WidthMm) { IsPutAway = r.IsPutAway, Version = r.Version };

    /// <summary>A row of a new tool.</summary>
    public static CraftToolRow RowOf(Guid owner, CraftTool t, int position)
    {
        var row = new CraftToolRow { Owner = owner, Key = t.Key, Position = position, Name = t.Name, Kind = "", Version = 1 };
        Write(row, t);
        return row;
    }

    public static void Write(CraftToolRow row, CraftTool t) =>
        (row.Kind, row.Name, row.Colour, row.WidthMm, row.IsPutAway) = (t.Kind.ToString(), t.Name, t.Colour, t.WidthMm, t.IsPutAway);
}
