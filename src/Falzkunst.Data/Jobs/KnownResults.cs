using System.Text.Json;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Refusals;
using Falzkunst.Data.Json;
using Falzkunst.Data.Rows;
using Microsoft.EntityFrameworkCore;

namespace Falzkunst.Data.Jobs;

/// <summary>
/// What computations have found, shared by all processes. Keys are hashes of everything that a result depends on, so that a result
/// is never wrong, only forgotten: those of another schema are computed anew.
/// </summary>
public sealed class KnownResults(FalzkunstDb db, TimeProvider clock)
{
    /// <summary>Results not asked for since are taken out some day.</summary>
    private static readonly TimeSpan Kept = TimeSpan.FromDays(30);

    /// <summary>Surveys that are known, by key.</summary>
    public async Task<IReadOnlyDictionary<string, PieceSurvey>> SurveysAsync(IReadOnlyCollection<string> keys, CancellationToken stop) =>
        (await TextsAsync(keys, stop)).ToDictionary(r => r.Key, r => StoredJson.Read<PieceSurvey>(r.Value));

    public Task<int> PutAsync(string key, PieceSurvey survey, CancellationToken stop) => PutAsync(key, StoredJson.Write(survey), stop);

    /// <summary>Candidates that are known, by key.</summary>
    public async Task<IReadOnlyDictionary<string, Candidate>> CandidatesAsync(IReadOnlyCollection<string> keys, CancellationToken stop) =>
        (await TextsAsync(keys, stop)).ToDictionary(r => r.Key, r => StoredJson.Read<StoredCandidate>(r.Value).Candidate());

    public Task<int> PutAsync(string key, Candidate candidate, CancellationToken stop) => PutAsync(key, StoredJson.Write(StoredCandidate.From(candidate)), stop);

    /// <summary>Takes out what is old.</summary>
    public Task<int> ForgetOldAsync(CancellationToken stop)
    {
        var before = clock.GetUtcNow() - Kept;
        return db.KnownResults.Where(r => r.At < before).ExecuteDeleteAsync(stop);
    }

    private Task<List<KnownResultRow>> TextsAsync(IReadOnlyCollection<string> keys, CancellationToken stop) => db.KnownResults.AsNoTracking()
        .Where(r => keys.Contains(r.Key) && r.SchemaVersion == StoredJson.SchemaVersion).ToListAsync(stop);

    private Task<int> PutAsync(string key, string value, CancellationToken stop) => db.Database.ExecuteSqlAsync(
        $"""
        insert into known_results (key, value, schema_version, at) values ({key}, {value}, {StoredJson.SchemaVersion}, {clock.GetUtcNow()})
        on conflict (key) do update set value = excluded.value, schema_version = excluded.schema_version, at = excluded.at
        """, stop);
}

/// <summary>A way to mend a piece that was tried, as it is stored.</summary>
internal sealed record StoredCandidate(Thicken How, StoredDesign? Made, string? Shape, StoredFigures? Figures, StoredRefusal? Refusal)
{
    public static StoredCandidate From(Candidate c) => c.Result is not { } r ? new(c.How, null, null, null, StoredRefusal.From(c.Refusal!)) : new(
        c.How, StoredDesign.From(Design.Empty with { Pieces = [r.Piece] }), r.Piece.OwnShape.Text,
        new StoredFigures(r.NarrowestBeforeMm, r.NarrowestAfterMm, r.Merged, r.ClosedOpenings, r.AreaBefore, r.AreaAfter, [.. r.Limited], r.Nodes), null);

    public Candidate Candidate()
    {
        if (Made is null) return new Candidate(How, null, Refusal?.Refusal());
        var shape = PieceShape.Read(Shape!);
        var piece = Made.With(new Dictionary<string, PieceShape> { [shape.Hash] = shape }).Pieces[0];
        var f = Figures!;
        return new Candidate(How, new Thickened(piece, f.NarrowestBeforeMm, f.NarrowestAfterMm, f.Merged, f.ClosedOpenings, f.AreaBefore, f.AreaAfter, [.. f.Limited], f.Nodes), null);
    }
}

internal sealed record StoredFigures(
    double? NarrowestBeforeMm, double? NarrowestAfterMm, int Merged, int ClosedOpenings, double AreaBefore, double AreaAfter, List<ThinPlace> Limited, int Nodes);

/// <summary>A refusal with its values, each with what it is.</summary>
internal sealed record StoredRefusal(Reason Reason, List<StoredValue> Values, string? Field)
{
    public static StoredRefusal From(EditRefused refused) => new(refused.Reason, [.. (refused.Values.IsDefault ? [] : refused.Values).Select(StoredValue.From)], refused.Field);

    public EditRefused Refusal() => new(Reason, [.. Values.Select(v => v.Value())]) { Field = Field };
}

internal sealed record StoredValue(string? Name = null, double? Number = null, int? Count = null, double? Millimetres = null)
{
    public static StoredValue From(object value) => value switch
    {
        string name => new(Name: name),
        int count => new(Count: count),
        double number => new(Number: number),
        Mm mm => new(Millimetres: mm.Value),
        _ => new(Name: value.ToString()),
    };

    public object Value() => Name ?? (object?)Count ?? (object?)Number ?? (Millimetres is { } mm ? new Mm(mm) : throw new JsonException("A value of a refusal is empty."));
}
