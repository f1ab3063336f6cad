using Falzkunst.Core.Refusals;

namespace Falzkunst.Web.Desk;

/// <summary>Something that the web itself cannot do, in a sentence; what the core refuses is an <see cref="EditRefused"/>.</summary>
public sealed class NotDone(string message) : Exception(message)
{
    /// <summary>Where whoever reads it can do something about it.</summary>
    public NoticeLink? Leads { get; init; }
}

/// <summary>A way on from a notice.</summary>
/// <param name="Words">What it says.</param>
/// <param name="Address">Where it leads, on this server; empty for the page that it stands on, as it is now.</param>
public sealed record NoticeLink(string Words, string Address);
