using System.Collections.Concurrent;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Projects;

namespace Falzkunst.Data.Workshop;

/// <summary>The drawers as they were last read, each with its version; every page of every station asks for one, and they hardly ever change.</summary>
public sealed class DrawerCache
{
    private readonly ConcurrentDictionary<Guid, (Drawer Drawer, int Version)> _drawers = new();

    /// <summary>The drawer of an owner at a version; null where it is to be read.</summary>
    public Drawer? Find(Guid owner, int version) => _drawers.TryGetValue(owner, out var kept) && kept.Version == version ? kept.Drawer : null;

    /// <summary>Keeps a drawer that was read after its version was.</summary>
    public void Keep(Guid owner, Drawer drawer, int version) => _drawers[owner] = (drawer, version);
}
