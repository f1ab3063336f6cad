using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Binding;

/// <summary>How requests become typed values, and what is said where they do not.</summary>
internal static class BindingSetup
{
    public static void Configure(MvcOptions options)
    {
        options.Filters.Add(new NoBareText());
        options.Filters.Add(new NoNulCharacters());
        options.Filters.Add(new NothingMissing());
        options.ModelBinderProviders.Insert(0, new NumberBinderProvider());
        options.ModelBinderProviders.Insert(0, new ActionBinderProvider());
        options.ModelMetadataDetailsProviders.Add(new ActionParametersAreRequired());
        // What a text must be is the core's to say.
        options.SuppressImplicitRequiredAttributeForNonNullableReferenceTypes = true;
        var messages = options.ModelBindingMessageProvider;
        messages.SetMissingBindRequiredValueAccessor(_ => "This is needed.");
        messages.SetMissingKeyOrValueAccessor(() => "This is needed.");
        messages.SetValueMustNotBeNullAccessor(_ => "This is needed.");
        messages.SetAttemptedValueIsInvalidAccessor((value, _) => $"“{value}” is none of the choices.");
        messages.SetNonPropertyAttemptedValueIsInvalidAccessor(value => $"“{value}” is none of the choices.");
        messages.SetUnknownValueIsInvalidAccessor(_ => "That was not understood.");
        messages.SetNonPropertyUnknownValueIsInvalidAccessor(() => "That was not understood.");
        messages.SetValueIsInvalidAccessor(value => $"“{value}” is none of the choices.");
    }
}
