using System.Collections.Immutable;
using System.Text;
using System.Text.Json.Serialization;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Actions;

/// <summary>What an action is done to, besides its own numbers.</summary>
/// <param name="Project">The project as it is.</param>
/// <param name="Picked">What is picked.</param>
/// <param name="Drawer">Stocks and machines at hand.</param>
public sealed record BenchContext(Project Project, Picked Picked, Drawer Drawer)
{
    public Design Design => Project.Design;
    public Units Units => Project.SetOut.Units;
}

/// <summary>
/// Something that a crafter asks for at the bench, as a form, a hand or the command line gives it: numbers in mm, choices, keys.
/// One record an action; what is picked comes beside it. A form's fields have the names of its parameters.
/// </summary>
public abstract record BenchAction
{
    /// <summary>The edit that it means.</summary>
    /// <exception cref="EditRefused">It does not fit what is picked.</exception>
    public abstract Edit For(BenchContext c);

    /// <summary>Its name in addresses, such as "take-apart".</summary>
    [JsonIgnore]
    public string ActionName => NameOf(GetType());

    /// <summary>All actions by name.</summary>
    public static readonly ImmutableSortedDictionary<string, Type> ByName = typeof(BenchAction).Assembly.GetTypes()
        .Where(t => t is { IsAbstract: false } && t.IsSubclassOf(typeof(BenchAction))).ToImmutableSortedDictionary(NameOf, t => t, StringComparer.Ordinal);

    /// <summary>The name of an action's type: its words, lower case, with hyphens, without "Action".</summary>
    public static string NameOf(Type type)
    {
        var name = new StringBuilder();
        foreach (var c in type.Name[..^"Action".Length])
        {
            if (char.IsUpper(c) && name.Length > 0) name.Append('-');
            name.Append(char.ToLowerInvariant(c));
        }
        return name.ToString();
    }
}

/// <summary>A number that is a length in mm; whoever reads it from a text lets it be written with a unit and as a sum.</summary>
[AttributeUsage(AttributeTargets.Parameter | AttributeTargets.Property)]
public sealed class InMillimetresAttribute : Attribute;
