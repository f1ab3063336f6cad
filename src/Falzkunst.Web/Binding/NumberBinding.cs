using Falzkunst.Core.Actions;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Web.Wording;
using Microsoft.AspNetCore.Mvc.ModelBinding;
using Microsoft.AspNetCore.Mvc.ModelBinding.Metadata;

namespace Falzkunst.Web.Binding;

/// <summary>
/// Numbers as people write them. A length may have a unit and be a sum, and is read in the units of the project on the desk; an
/// empty field is no number, so that an optional one stays as it is.
/// </summary>
internal sealed class NumberBinderProvider : IModelBinderProvider
{
    public IModelBinder? GetBinder(ModelBinderProviderContext context)
    {
        var type = context.Metadata.UnderlyingOrModelType;
        if (context.Metadata is DefaultModelMetadata metadata && metadata.Attributes.Attributes.OfType<InMillimetresAttribute>().Any())
            return type == typeof(double) ? new LengthBinder() : type == typeof(double[]) ? new LengthsBinder() : null;
        return type == typeof(double) ? new NumberBinder() : type == typeof(int) ? new WholeNumberBinder() : null;
    }
}

/// <summary>The units that lengths are read in during a request.</summary>
internal static class RequestUnits
{
    public static void Set(HttpContext context, Units units) => context.Items[typeof(Units)] = units;

    public static Units For(HttpContext context) => context.Items[typeof(Units)] is Units units ? units : Units.Millimetres;
}

internal abstract class TextBinder : IModelBinder
{
    /// <summary>Reads the value; a sentence where the text is none.</summary>
    protected abstract string? Read(string text, Units units, out object value);

    public Task BindModelAsync(ModelBindingContext bindingContext)
    {
        var given = bindingContext.ValueProvider.GetValue(bindingContext.ModelName);
        if (given == ValueProviderResult.None) return Task.CompletedTask;
        bindingContext.ModelState.SetModelValue(bindingContext.ModelName, given);
        if (string.IsNullOrWhiteSpace(given.FirstValue) && !bindingContext.ModelMetadata.IsBindingRequired && bindingContext.ModelMetadata.IsReferenceOrNullableType)
        {
            bindingContext.Result = ModelBindingResult.Success(null);
            return Task.CompletedTask;
        }
        if (Read(given.FirstValue ?? "", RequestUnits.For(bindingContext.HttpContext), out var value) is { } error)
            bindingContext.ModelState.TryAddModelError(bindingContext.ModelName, error);
        else
            bindingContext.Result = ModelBindingResult.Success(value);
        return Task.CompletedTask;
    }
}

internal sealed class LengthBinder : TextBinder
{
    protected override string? Read(string text, Units units, out object value)
    {
        var fault = Length.Read(text, units, out var mm);
        value = mm;
        return fault is { } f ? ReasonWords.For(f, text) : null;
    }
}

internal sealed class NumberBinder : TextBinder
{
    protected override string? Read(string text, Units units, out object value)
    {
        var isNumber = Numbers.TryRead(text, out double number);
        value = number;
        return isNumber ? null : ReasonWords.For(new EditRefused(Reason.NotANumber, text), units);
    }
}

internal sealed class WholeNumberBinder : TextBinder
{
    protected override string? Read(string text, Units units, out object value)
    {
        var isNumber = Numbers.TryRead(text, out int number);
        value = number;
        return isNumber ? null : ReasonWords.For(new EditRefused(Reason.NotAWholeNumber, text), units);
    }
}

/// <summary>As many lengths as fields of the name are filled in.</summary>
internal sealed class LengthsBinder : IModelBinder
{
    public Task BindModelAsync(ModelBindingContext bindingContext)
    {
        var given = bindingContext.ValueProvider.GetValue(bindingContext.ModelName);
        if (given == ValueProviderResult.None) return Task.CompletedTask;
        bindingContext.ModelState.SetModelValue(bindingContext.ModelName, given);
        var units = RequestUnits.For(bindingContext.HttpContext);
        var lengths = new List<double>();
        foreach (var text in given.Where(t => !string.IsNullOrWhiteSpace(t)))
        {
            if (Length.Read(text, units, out var mm) is { } fault) bindingContext.ModelState.TryAddModelError(bindingContext.ModelName, ReasonWords.For(fault, text));
            else lengths.Add(mm);
        }
        if (lengths.Count > 0) bindingContext.Result = ModelBindingResult.Success(lengths.ToArray());
        return Task.CompletedTask;
    }
}
