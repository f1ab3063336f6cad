using Falzkunst.Core.Designs;

namespace Falzkunst.Web.Pages.Project;

/// <summary>A rule that may be kept.</summary>
/// <param name="Rule">The rule.</param>
/// <param name="Origin">The hand that the file is from; null where it is not known.</param>
/// <param name="Changes">How many more lines here it would change.</param>
public sealed record RuleOffer(LookRule Rule, string? Origin, int Changes);
