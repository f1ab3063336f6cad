namespace Falzkunst.Core.Catalogue;

/// <summary>A thing in the drawer that can be changed and put away: a stock, a machine, a pen or another craft tool.</summary>
public interface IDrawerThing
{
    /// <summary>Short stable name, unique among things of its kind.</summary>
    string Key { get; }

    /// <summary>Name for people.</summary>
    string Name { get; }

    /// <summary>It is no longer offered; what was made with it goes on knowing it.</summary>
    bool IsPutAway { get; }

    /// <summary>Rises with every change; a change names the one that it was made on.</summary>
    int Version { get; }
}
