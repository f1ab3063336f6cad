using Falzkunst.Core.Actions;
using Microsoft.AspNetCore.Mvc.ModelBinding;
using Microsoft.AspNetCore.Mvc.ModelBinding.Metadata;
using Microsoft.AspNetCore.Mvc.ModelBinding.Validation;

namespace Falzkunst.Web.Binding;

/// <summary>Binds an action of the bench: its name stands in the address (act=turn), its parameters in the form.</summary>
internal sealed class ActionBinderProvider : IModelBinderProvider
{
    public IModelBinder? GetBinder(ModelBinderProviderContext context)
    {
        if (context.Metadata.ModelType != typeof(BenchAction)) return null;
        return new ActionBinder(BenchAction.ByName.ToDictionary(
            a => a.Key,
            a => context.MetadataProvider.GetMetadataForType(a.Value) is var metadata ? (metadata, context.CreateBinder(metadata)) : default,
            StringComparer.Ordinal));
    }
}

internal sealed class ActionBinder(Dictionary<string, (ModelMetadata Metadata, IModelBinder Binder)> actions) : IModelBinder
{
    /// <summary>Name of the address's part that names the action.</summary>
    public const string Act = "act";

    /// <summary>Name of the field that says what an action is done to instead of what is picked; no parameter of an action can be called so.</summary>
    public const string ActOn = "act-on";

    public async Task BindModelAsync(ModelBindingContext bindingContext)
    {
        var name = bindingContext.HttpContext.Request.Query[Act].ToString();
        if (!actions.TryGetValue(name, out var action))
        {
            bindingContext.ModelState.AddModelError(Act, "There is no such action.");
            bindingContext.Result = ModelBindingResult.Failed();
            return;
        }
        var inner = DefaultModelBindingContext.CreateBindingContext(bindingContext.ActionContext, bindingContext.ValueProvider, action.Metadata, bindingInfo: null, modelName: "");
        await action.Binder.BindModelAsync(inner);
        bindingContext.Result = inner.Result;
        if (inner.Result is { IsModelSet: true, Model: { } model }) bindingContext.ValidationState[model] = new ValidationStateEntry { Metadata = action.Metadata };
    }
}

/// <summary>A parameter of an action without a usual value must be given; its absence is no silent 0.</summary>
internal sealed class ActionParametersAreRequired : IBindingMetadataProvider
{
    public void CreateBindingMetadata(BindingMetadataProviderContext context)
    {
        if (context.Key.ParameterInfo is { HasDefaultValue: false } parameter && parameter.Member.DeclaringType?.IsSubclassOf(typeof(BenchAction)) == true)
            context.BindingMetadata.IsBindingRequired = true;
    }
}
