using Falzkunst.Core.Designs;
using Falzkunst.Data.Rows;
using Microsoft.EntityFrameworkCore;

namespace Falzkunst.Data.Workshop;

/// <summary>A remembered rule with its key.</summary>
public sealed record RememberedRule(Guid Id, LookRule Rule);

/// <summary>Look rules that the user's choices left behind, newest first.</summary>
public sealed class LookRuleStore(FalzkunstDb db, TimeProvider clock)
{
    public async Task<List<RememberedRule>> ListAsync(Guid owner, CancellationToken stop)
    {
        var rows = await db.LookRules.AsNoTracking().Where(r => r.Owner == owner).OrderByDescending(r => r.At).ToListAsync(stop);
        return [.. rows.Where(r => OperationWords.TryRead(r.Operation, out _)).Select(r => new RememberedRule(r.Id, RuleOf(r)))];
    }

    /// <summary>Remembers a rule; a former one for the same look is replaced.</summary>
    public async Task RememberAsync(Guid owner, LookRule rule, CancellationToken stop)
    {
        await db.LookRules
            .Where(r => r.Owner == owner && r.Stroke == rule.Stroke && r.Fill == rule.Fill
                && r.Dashed == rule.Dashed && r.Closed == rule.Closed && r.Layer == rule.Layer)
            .ExecuteDeleteAsync(stop);
        db.LookRules.Add(new LookRuleRow
        {
            Id = Guid.CreateVersion7(), Owner = owner, Operation = rule.Operation.Word(), Stroke = rule.Stroke, Fill = rule.Fill,
            Dashed = rule.Dashed, Closed = rule.Closed, Layer = rule.Layer, At = clock.GetUtcNow(),
        });
        await db.SaveChangesAsync(stop);
        db.ChangeTracker.Clear();
    }

    public Task ForgetAsync(Guid owner, Guid id, CancellationToken stop) =>
        db.LookRules.Where(r => r.Owner == owner && r.Id == id).ExecuteDeleteAsync(stop);

    private static LookRule RuleOf(LookRuleRow row)
    {
        OperationWords.TryRead(row.Operation, out var operation);
        return new LookRule(operation, row.Stroke, row.Fill, row.Dashed, row.Closed, row.Layer);
    }
}
