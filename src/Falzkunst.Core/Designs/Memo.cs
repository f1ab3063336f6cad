namespace Falzkunst.Core.Designs;

/// <summary>
/// A value that follows from other values of a record, kept beside them. It counts as no part of the record: two records that
/// differ in it alone are equal, and a copy made by <c>with</c> takes it along for as long as its key stays the same.
/// </summary>
internal struct Memo<TKey, TValue> : IEquatable<Memo<TKey, TValue>> where TValue : class
{
    private Entry? _entry;

    /// <summary>The kept value where its key still holds, else a new one.</summary>
    /// <param name="key">What the value follows from.</param>
    /// <param name="holds">The kept key and this one give the same value.</param>
    /// <param name="find">Finds the value.</param>
    public TValue Get(TKey key, Func<TKey, TKey, bool> holds, Func<TValue> find)
    {
        var kept = _entry;
        if (kept is not null && holds(kept.Key, key)) return kept.Value;
        var found = find();
        _entry = new Entry(key, found);
        return found;
    }

    public readonly bool Equals(Memo<TKey, TValue> other) => true;
    public override readonly bool Equals(object? obj) => obj is Memo<TKey, TValue>;
    public override readonly int GetHashCode() => 0;

    private sealed record Entry(TKey Key, TValue Value);
}
