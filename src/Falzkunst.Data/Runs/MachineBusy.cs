namespace Falzkunst.Data.Runs;

/// <summary>A sheet that a machine carries.</summary>
/// <param name="Title">What it is called.</param>
/// <param name="Sheet">Its id.</param>
/// <param name="ProjectId">Its project.</param>
/// <param name="Project">Name of that.</param>
public sealed record CarriedSheet(string Title, string Sheet, Guid ProjectId, string Project);

/// <summary>A machine carries one sheet at a time.</summary>
/// <param name="carried">What it carries; null where that is not known.</param>
public sealed class MachineBusy(CarriedSheet? carried) : Exception($"The machine carries {carried?.Title ?? "another sheet"}.")
{
    public CarriedSheet? Carried { get; } = carried;
}
