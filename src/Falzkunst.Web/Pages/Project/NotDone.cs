namespace Falzkunst.Web.Pages.Project;

/// <summary>Something that the web itself cannot do, in a sentence; what the core refuses is an <see cref="Core.Designs.EditRefused"/>.</summary>
public sealed class NotDone(string message) : Exception(message);
