using Falzkunst.Core.Designs;
using Falzkunst.Data.Rows;
using Microsoft.EntityFrameworkCore;

namespace Falzkunst.Data.Workshop;

/// <summary>A remembered rule with its key.</summary>
/// <param name="Id">Its key.</param>
/// <param name="Rule">The rule.</param>
/// <param name="Origin">The hand whose files it is for; null for any.</param>
public sealed record RememberedRule(Guid Id, LookRule Rule, string? Origin)
{
    /// <summary>It is for files of that hand.</summary>
    public bool IsFor(string? origin) => Origin is null || string.Equals(Origin, origin, StringComparison.OrdinalIgnoreCase);
}

/// <summary>Look rules in the order in which they are tried; the first that fits a line wins.</summary>
public sealed class LookRuleStore(FalzkunstDb db, TimeProvider clock)
{
    public const int LongestOrigin = 80;

    public async Task<List<RememberedRule>> ListAsync(Guid owner, CancellationToken stop)
    {
        var rows = await db.LookRules.AsNoTracking().Where(r => r.Owner == owner).OrderBy(r => r.Position).ThenByDescending(r => r.At).ToListAsync(stop);
        return [.. rows.Where(r => OperationWords.TryRead(r.Operation, out _)).Select(r => new RememberedRule(r.Id, RuleOf(r), r.Origin))];
    }

    /// <summary>Remembers a rule before all others; a former one for the same look and hand is replaced.</summary>
    public async Task RememberAsync(Guid owner, LookRule rule, string? origin, CancellationToken stop)
    {
        await db.LookRules
            .Where(r => r.Owner == owner && r.Origin == origin && r.Stroke == rule.Stroke && r.Fill == rule.Fill
                && r.Dashed == rule.Dashed && r.Closed == rule.Closed && r.Layer == rule.Layer)
            .ExecuteDeleteAsync(stop);
        var first = await db.LookRules.Where(r => r.Owner == owner).Select(r => (int?)r.Position).MinAsync(stop);
        var row = new LookRuleRow { Id = Guid.CreateVersion7(), Owner = owner, Operation = "", Position = (first ?? 0) - 1 };
        Write(row, rule, origin);
        db.LookRules.Add(row);
        await SaveAsync(stop);
    }

    /// <summary>Puts another rule in the place of one; nothing happens where that is gone.</summary>
    public async Task ChangeAsync(Guid owner, Guid id, LookRule rule, string? origin, CancellationToken stop)
    {
        if (await db.LookRules.SingleOrDefaultAsync(r => r.Id == id && r.Owner == owner, stop) is not { } row) return;
        Write(row, rule, origin);
        await SaveAsync(stop);
    }

    /// <summary>Moves a rule one place up or down.</summary>
    public async Task MoveAsync(Guid owner, Guid id, bool up, CancellationToken stop)
    {
        var rows = await db.LookRules.Where(r => r.Owner == owner).OrderBy(r => r.Position).ThenByDescending(r => r.At).ToListAsync(stop);
        var at = rows.FindIndex(r => r.Id == id);
        var to = up ? at - 1 : at + 1;
        if (at >= 0 && to >= 0 && to < rows.Count) (rows[at], rows[to]) = (rows[to], rows[at]);
        for (var i = 0; i < rows.Count; i++) rows[i].Position = i;
        await SaveAsync(stop);
    }

    public Task ForgetAsync(Guid owner, Guid id, CancellationToken stop) =>
        db.LookRules.Where(r => r.Owner == owner && r.Id == id).ExecuteDeleteAsync(stop);

    private async Task SaveAsync(CancellationToken stop)
    {
        await db.SaveChangesAsync(stop);
        db.ChangeTracker.Clear();
    }

    private void Write(LookRuleRow row, LookRule rule, string? origin)
    {
        (row.Operation, row.Fold, row.Origin, row.At) = (rule.Operation.Word(), rule.Fold?.ToString().ToLowerInvariant(), origin, clock.GetUtcNow());
        (row.Stroke, row.Fill, row.Dashed, row.Closed, row.Layer) = (rule.Stroke, rule.Fill, rule.Dashed, rule.Closed, rule.Layer);
    }

    private static LookRule RuleOf(LookRuleRow row)
    {
        OperationWords.TryRead(row.Operation, out var operation);
        var fold = Enum.TryParse<FoldDirection>(row.Fold, ignoreCase: true, out var way) ? way : (FoldDirection?)null;
        return new LookRule(operation, row.Stroke, row.Fill, row.Dashed, row.Closed, row.Layer, fold);
    }
}
