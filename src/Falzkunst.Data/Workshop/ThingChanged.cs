namespace Falzkunst.Data.Workshop;

/// <summary>A thing of the drawer was changed by somebody else since it was looked at; nothing was written.</summary>
/// <param name="name">What it is called.</param>
/// <param name="whatChanged">The last change of it as a sentence; null where the audit does not tell.</param>
public sealed class ThingChanged(string name, string? whatChanged) : Exception($"{name} has changed meanwhile.")
{
    public string Name { get; } = name;
    public string? WhatChanged { get; } = whatChanged;
}

/// <summary>There is nothing in the audit to take back, or to do again.</summary>
public sealed class NothingInDrawer() : Exception("There is nothing to take back or to do again.");
