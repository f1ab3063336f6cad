using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Projects;

namespace Falzkunst.Core.Commands;

/// <summary>What a command is given besides its words.</summary>
/// <param name="Project">The project as it is.</param>
/// <param name="Picked">What is picked.</param>
/// <param name="Drawer">Stocks and machines at hand.</param>
public sealed record CommandContext(Project Project, Picked Picked, Drawer Drawer)
{
    public Design Design => Project.Design;
    public Units Units => Project.SetOut.Units;
}

/// <summary>A command that a crafter can type, or a button sends.</summary>
/// <param name="Name">Its first word or words.</param>
/// <param name="Usage">The whole of it with what it takes, such as "size 40 30".</param>
/// <param name="Help">What it does, in one short sentence.</param>
/// <param name="Make">The edit that it means.</param>
public sealed record Command(string Name, string Usage, string Help, Func<CommandContext, CommandWords, Edit> Make);

/// <summary>Reads what is typed into the command line. Every action of the Pieces and Detail stations is one of its commands.</summary>
public static class CommandLine
{
    public const int LongestText = 400;

    public static readonly ImmutableArray<Command> All = [.. ArrangeCommands.All, .. LineCommands.All, .. PieceCommands.All, .. DetailCommands.All];

    private static readonly ImmutableArray<Command> LongestNameFirst = [.. All.OrderByDescending(c => c.Name.Length)];

    /// <summary>The edit that a text means.</summary>
    /// <exception cref="EditRefused">The text is no command, or lacks something, with a sentence that says what.</exception>
    public static Edit Read(string text, CommandContext context)
    {
        var trimmed = text.Trim();
        if (trimmed.Length == 0) throw new EditRefused("Type what to do, such as size 40 30 or turn 90.");
        if (trimmed.Length > LongestText) throw new EditRefused($"A command has at most {LongestText} characters.");
        foreach (var command in LongestNameFirst)
        {
            if (!trimmed.StartsWith(command.Name, StringComparison.OrdinalIgnoreCase)) continue;
            if (trimmed.Length > command.Name.Length && !char.IsWhiteSpace(trimmed[command.Name.Length])) continue;
            var words = new CommandWords(trimmed[command.Name.Length..], command.Usage, context.Units);
            var edit = command.Make(context, words);
            words.End();
            return edit;
        }
        var first = trimmed.Split(' ')[0];
        var near = All.Where(c => c.Name.StartsWith(first[..1], StringComparison.OrdinalIgnoreCase)).Select(c => c.Name.Split(' ')[0]).Distinct().Take(6).ToList();
        throw new EditRefused($"“{first}” is no command.{(near.Count > 0 ? $" With that letter begin: {string.Join(", ", near)}." : " Type / and a few letters to see what there is.")}");
    }
}
