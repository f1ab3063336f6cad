using System.Collections.Concurrent;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Projects;

namespace Falzkunst.Data.Workshop;

/// <summary>The drawers as they were last read; every page of every station asks for one, and they hardly ever change.</summary>
public sealed class DrawerCache
{
    private readonly ConcurrentDictionary<Guid, (Drawer Drawer, int AsOf)> _drawers = new();
    private int _version;

    /// <summary>Rises with every change of any drawer.</summary>
    public int Version => Volatile.Read(ref _version);

    /// <summary>The drawer of an owner; null where it is to be read.</summary>
    public Drawer? Find(Guid owner) => _drawers.TryGetValue(owner, out var kept) && kept.AsOf == Version ? kept.Drawer : null;

    /// <summary>Keeps a drawer that was read after the cache had this version.</summary>
    public void Keep(Guid owner, Drawer drawer, int asOf) => _drawers[owner] = (drawer, asOf);

    /// <summary>Something has changed: all are read again.</summary>
    public void Forget() => Interlocked.Increment(ref _version);
}
