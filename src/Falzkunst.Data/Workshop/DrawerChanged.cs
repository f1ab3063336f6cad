namespace Falzkunst.Data.Workshop;

/// <summary>The stock drawer was changed by somebody else in the same moment; nothing was written.</summary>
public sealed class DrawerChanged() : Exception("The drawer has changed meanwhile.");
