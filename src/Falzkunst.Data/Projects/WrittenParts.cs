using Falzkunst.Core.Designs;

namespace Falzkunst.Data.Projects;

/// <summary>The parts of one revision on their way into the database, each with the value that it was written from.</summary>
public sealed class WrittenParts
{
    private readonly Dictionary<string, (Func<string> Content, Action<PartCache, string> Keep)> _parts = new(StringComparer.Ordinal);

    public IEnumerable<string> Hashes => _parts.Keys;

    public string ContentOf(string hash) => _parts[hash].Content();

    /// <summary>Takes a value as its text; gives the text's hash.</summary>
    public string Add<T>(T value, string content) where T : class
    {
        var hash = ContentHash.Compute(content);
        _parts[hash] = (() => content, (cache, key) => cache.Keep(key, value, content.Length));
        return hash;
    }

    public void Add(PieceShape shape) =>
        _parts.TryAdd(shape.Hash, (() => shape.Text, (cache, key) => cache.Keep(key, shape, shape.Text.Length)));

    internal void KeepIn(PartCache cache)
    {
        foreach (var (hash, part) in _parts)
        {
            if (!cache.Knows(hash)) part.Keep(cache, hash);
        }
    }
}
