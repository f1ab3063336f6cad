using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using Falzkunst.Core.Actions;
using Microsoft.AspNetCore.Razor.TagHelpers;

namespace Falzkunst.Web.Binding;

/// <summary>
/// A button that does an action: <c>act="@(new TurnAction(90))"</c>. A form whose fields are an action's parameters names its type
/// instead: <c>act-of="@typeof(TurnAction)"</c>. Either is posted to the page's one handler for actions.
/// </summary>
[HtmlTargetElement(Attributes = "act")]
[HtmlTargetElement(Attributes = "act-of")]
public sealed class ActTagHelper : TagHelper
{
    private static readonly JsonSerializerOptions Values = new(JsonSerializerDefaults.Web)
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        Converters = { new JsonStringEnumConverter() },
    };

    /// <summary>The action that the button does.</summary>
    public BenchAction? Act { get; set; }

    /// <summary>The action that the form gives parameters to.</summary>
    public Type? ActOf { get; set; }

    /// <summary>Key of what it is done to instead of what is picked.</summary>
    public string? ActOn { get; set; }

    /// <summary>Only what it would change is laid over the table; a button in a form takes the form's fields along.</summary>
    public bool IsPreview { get; set; }

    public override void Process(TagHelperContext context, TagHelperOutput output)
    {
        var name = Act?.ActionName ?? BenchAction.NameOf(ActOf ?? throw new InvalidOperationException("act-of names no action."));
        output.Attributes.SetAttribute(IsPreview ? "data-preview" : "hx-post", IsPreview ? name : AddressOf(name));
        var values = new Dictionary<string, string>(StringComparer.Ordinal);
        if (Act is not null)
        {
            foreach (var field in JsonSerializer.SerializeToElement(Act, Act.GetType(), Values).EnumerateObject()) values[field.Name] = TextOf(field.Value);
        }
        if (ActOn is not null) values[ActionBinder.ActOn] = ActOn;
        // The writer of attributes escapes what the JSON holds.
        if (values.Count > 0) output.Attributes.SetAttribute(IsPreview ? "data-values" : "hx-vals", JsonSerializer.Serialize(values, Values));
    }

    private static string TextOf(JsonElement value) => value.ValueKind is JsonValueKind.True or JsonValueKind.False ? value.GetRawText() : value.ToString();

    /// <summary>The address that an action is posted to.</summary>
    public static string AddressOf(string action) => $"?handler=Do&act={action}";
}
