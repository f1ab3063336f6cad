using Falzkunst.Core.Refusals;

namespace Falzkunst.Web.Desk;

/// <summary>Something that the web itself cannot do, in a sentence; what the core refuses is an <see cref="EditRefused"/>.</summary>
public sealed class NotDone(string message) : Exception(message);
