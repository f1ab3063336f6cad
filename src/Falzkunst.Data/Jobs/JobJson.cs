using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Tracing;
using Falzkunst.Data.Json;
using Falzkunst.Data.Json.Upcasting;

namespace Falzkunst.Data.Jobs;

/// <summary>How long the pieces of a stock settle.</summary>
public sealed record SettleRequest(int Seconds);

/// <summary>Which copies look for room, and where; a new sheet of a size where none is named.</summary>
public sealed record SendRequest(string Sheet, ImmutableArray<PlacedCopy> Copies, string? To, string? Size, Guid Batch);

/// <summary>Which ways to mend a piece are tried.</summary>
public sealed record ThickenRequest(ImmutableArray<Thicken> Ways);

/// <summary>How a picture is traced, and what becomes of it.</summary>
public sealed record TraceRequest(string Picture, TraceSettings Settings, Operation Operation, string? Onto, bool Again);

/// <summary>What jobs ask for and find, as it is stored.</summary>
public static class JobJson
{
    public static string Write<T>(T request) => StoredJson.Write(request);

    public static T Read<T>(string text) => StoredJson.Read<T>(text);

    /// <summary>What a job has traced; null where it has nothing yet.</summary>
    public static Traced? Traced(OpenJob job) => job.Result is null || job.SchemaVersion != StoredJson.SchemaVersion ? null : StoredJson.Read<Traced>(job.Result);

    /// <summary>The layout that a job has found; null where it has none yet.</summary>
    public static StockLayout? Layout(OpenJob job) =>
        job.Result is null ? null : StoredJson.Read<StockLayout>(job.Result, StoredKind.StockLayout, job.SchemaVersion);
}
