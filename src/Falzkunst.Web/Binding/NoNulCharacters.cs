using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;

namespace Falzkunst.Web.Binding;

/// <summary>Values with a NUL in them come from no keyboard, and no database keeps them.</summary>
internal sealed class NoNulCharacters : IAsyncResourceFilter
{
    public async Task OnResourceExecutionAsync(ResourceExecutingContext context, ResourceExecutionDelegate next)
    {
        var request = context.HttpContext.Request;
        var values = request.Query.SelectMany(q => q.Value);
        if (request.HasFormContentType) values = values.Concat((await request.ReadFormAsync(context.HttpContext.RequestAborted)).SelectMany(f => f.Value));
        if (values.Any(v => v?.Contains('\0', StringComparison.Ordinal) == true)) context.Result = new StatusCodeResult(StatusCodes.Status400BadRequest);
        else await next();
    }
}
