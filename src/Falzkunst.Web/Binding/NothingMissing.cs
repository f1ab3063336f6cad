using System.Collections.Concurrent;
using System.Reflection;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;

namespace Falzkunst.Web.Binding;

/// <summary>A request that lacks what its handler cannot do without is no request of a page; what may be left out is nullable.</summary>
internal sealed class NothingMissing : IAsyncPageFilter
{
    private static readonly ConcurrentDictionary<ICustomAttributeProvider, bool> Needed = new();

    public Task OnPageHandlerSelectionAsync(PageHandlerSelectedContext context) => Task.CompletedTask;

    public async Task OnPageHandlerExecutionAsync(PageHandlerExecutingContext context, PageHandlerExecutionDelegate next)
    {
        var lacks = context.HandlerMethod?.MethodInfo.GetParameters().Any(p => context.HandlerArguments.TryGetValue(p.Name ?? "", out var value) ? Lacks(p, value) : !p.ParameterType.IsValueType && Lacks(p, null)) == true;
        // Where a value was not understood there is a word for it.
        if (lacks && context.ModelState.IsValid) context.Result = new StatusCodeResult(StatusCodes.Status400BadRequest);
        else await next();
    }

    private static bool Lacks(ParameterInfo parameter, object? value)
    {
        if (value is null && parameter.ParameterType.IsValueType) return Nullable.GetUnderlyingType(parameter.ParameterType) is null;
        if (value is null) return !parameter.HasDefaultValue && Needed.GetOrAdd(parameter, static p => IsNeeded(new NullabilityInfoContext().Create((ParameterInfo)p)));
        // A form as a record: the same of its fields.
        return value.GetType().Assembly == typeof(NothingMissing).Assembly
            && value.GetType().GetProperties().Any(p => !p.PropertyType.IsValueType && p.GetIndexParameters().Length == 0
                && Needed.GetOrAdd(p, static p => IsNeeded(new NullabilityInfoContext().Create((PropertyInfo)p))) && p.GetValue(value) is null);
    }

    private static bool IsNeeded(NullabilityInfo info) => info.ReadState == NullabilityState.NotNull;
}
