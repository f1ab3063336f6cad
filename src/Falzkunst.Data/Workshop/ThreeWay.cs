using System.Text.Json.Nodes;

namespace Falzkunst.Data.Workshop;

/// <summary>
/// A part of a document as a change wants it, where something else has changed it meanwhile: what the change was not about stays, lists
/// of named things are merged thing by thing, and counts go by as many as they went. So a sheet that a run has used, or a rest that it
/// has kept, does not stand in the way of taking a change back that was about another sheet, or about how many there are.
/// </summary>
internal static class ThreeWay
{
    private const string Name = "name", Count = "count";

    /// <param name="now">As it is.</param>
    /// <param name="was">As the change found it.</param>
    /// <param name="wanted">As the change leaves it.</param>
    /// <param name="merged">Both together; null where nothing is left.</param>
    /// <returns>False where both changed the same and there is no way to say which holds.</returns>
    public static bool TryMerge(JsonNode? now, JsonNode? was, JsonNode? wanted, out JsonNode? merged)
    {
        if (JsonNode.DeepEquals(now, was))
        {
            merged = wanted?.DeepClone();
            return true;
        }
        // A list that is left out is empty.
        merged = IsNamed(now) && IsNamed(was) && IsNamed(wanted) ? MergeLists(now, was, wanted)
            : now is JsonObject a && was is JsonObject b && wanted is JsonObject c ? MergeMembers(a, b, c) : null;
        return merged is not null;
    }

    private static bool IsNamed(JsonNode? list) => list is null || (list is JsonArray items && items.All(i => i is JsonObject o && o.ContainsKey(Name)));

    private static Dictionary<string, JsonNode> ByName(JsonNode? list) => (list as JsonArray ?? []).ToDictionary(i => i![Name]!.GetValue<string>(), i => i!);

    private static JsonArray? MergeLists(JsonNode? now, JsonNode? was, JsonNode? wanted)
    {
        var (there, before, after) = (ByName(now), ByName(was), ByName(wanted));
        var merged = new List<JsonNode>();
        foreach (var (name, item) in there)
        {
            var (from, to) = (before.GetValueOrDefault(name), after.GetValueOrDefault(name));
            if (JsonNode.DeepEquals(from, to)) merged.Add(item.DeepClone());
            else if (to is null && JsonNode.DeepEquals(item, from)) continue;
            else if (to is null || !TryMerge(item, from, to, out var both)) return null;
            else merged.Add(both!);
        }
        // What was used up meanwhile is not there to be changed; what the change brings is.
        merged.AddRange(after.Where(a => !there.ContainsKey(a.Key) && !before.ContainsKey(a.Key)).Select(a => a.Value.DeepClone()));
        return [.. merged];
    }

    private static JsonObject? MergeMembers(JsonObject now, JsonObject was, JsonObject wanted)
    {
        var merged = new JsonObject();
        foreach (var key in now.Select(m => m.Key).Union(was.Select(m => m.Key)).Union(wanted.Select(m => m.Key)))
        {
            if (JsonNode.DeepEquals(was[key], wanted[key])) merged[key] = now[key]?.DeepClone();
            else if (JsonNode.DeepEquals(now[key], was[key])) merged[key] = wanted[key]?.DeepClone();
            else if (key == Count && now[key] is { } n && was[key] is { } w && wanted[key] is { } to) merged[key] = Math.Max(0, n.GetValue<int>() + to.GetValue<int>() - w.GetValue<int>());
            else return null;
        }
        return merged;
    }
}
