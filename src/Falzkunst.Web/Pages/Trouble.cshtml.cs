using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Falzkunst.Web.Pages;

/// <summary>What is shown where a page cannot be.</summary>
[IgnoreAntiforgeryToken]
public sealed class TroubleModel : PageModel
{
    /// <summary>Status of a page whose project cannot be read.</summary>
    public const int Unreadable = StatusCodes.Status422UnprocessableEntity;

    public string Title { get; private set; } = "";
    public string What { get; private set; } = "";

    public void OnGet(int? code) => Tell(code);

    public void OnPost(int? code) => Tell(code);

    private void Tell(int? code) => (Title, What) = code switch
    {
        404 => ("Not here", "There is no such page or project. It may have been removed, or the address has a slip in it."),
        400 => ("That did not arrive whole", "The page has been open for very long, or the request was cut short. Load the page again and repeat the last step."),
        Unreadable => ("This project cannot be read", "What is stored of it is damaged, or was written by a later version of Falzkunst. Nothing of it was changed, and the other projects are not touched."),
        413 => ("Too large", "A file may have at most 20 MB. Split the drawing into parts and bring them in one by one."),
        _ => ("Something broke", "Whether the last step was carried out is not known here; everything before it is kept. Load the page again: it shows what there is now."),
    };
}
