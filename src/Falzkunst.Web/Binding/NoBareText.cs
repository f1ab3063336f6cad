using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;

namespace Falzkunst.Web.Binding;

/// <summary>
/// No handler answers with bare text: swapped into a page it would be markup, whatever somebody wrote into a file. Sentences go
/// through a partial, which encodes them; values for scripts are JSON.
/// </summary>
internal sealed class NoBareText : IAlwaysRunResultFilter
{
    public void OnResultExecuting(ResultExecutingContext context)
    {
        if (context.Result is ContentResult { ContentType: not "image/svg+xml" } bare)
            throw new InvalidOperationException($"A handler answered with bare text of type {bare.ContentType ?? "text/plain"}.");
    }

    public void OnResultExecuted(ResultExecutedContext context)
    {
    }
}
