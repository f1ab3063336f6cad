using System.Collections.Immutable;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Commands;

/// <summary>A command that a crafter can type.</summary>
/// <param name="Name">Its first word or words.</param>
/// <param name="Usage">The whole of it with what it takes, such as "size 40 30".</param>
/// <param name="Help">What it does, in one short sentence.</param>
/// <param name="Make">The action that its words mean.</param>
public sealed record Command(string Name, string Usage, string Help, Func<BenchContext, CommandWords, BenchAction> Make);

/// <summary>Reads what is typed into the command line: one reader more of the same actions that forms and hands give.</summary>
public static class CommandLine
{
    public const int LongestText = 400;

    public static readonly ImmutableArray<Command> All = [.. ArrangeCommands.All, .. LineCommands.All, .. DrawCommands.All, .. PieceCommands.All, .. DetailCommands.All];

    private static readonly ImmutableArray<Command> LongestNameFirst = [.. All.OrderByDescending(c => c.Name.Length)];

    /// <summary>The action that a text means.</summary>
    /// <exception cref="EditRefused">The text is no command, or lacks something.</exception>
    public static BenchAction Read(string text, BenchContext context)
    {
        var trimmed = text.Trim();
        if (trimmed.Length == 0) throw new EditRefused(Reason.CommandEmpty);
        if (trimmed.Length > LongestText) throw new EditRefused(Reason.CommandTooLong, LongestText);
        foreach (var command in LongestNameFirst)
        {
            if (!trimmed.StartsWith(command.Name, StringComparison.OrdinalIgnoreCase)) continue;
            if (trimmed.Length > command.Name.Length && !char.IsWhiteSpace(trimmed[command.Name.Length])) continue;
            var words = new CommandWords(trimmed[command.Name.Length..], command.Usage, context.Units);
            var action = command.Make(context, words);
            words.End();
            return action;
        }
        var first = trimmed.Split(' ')[0];
        var near = All.Where(c => c.Name.StartsWith(first[..1], StringComparison.OrdinalIgnoreCase)).Select(c => c.Name.Split(' ')[0]).Distinct().Take(6).ToList();
        throw new EditRefused(Reason.NoSuchCommand, first, near);
    }
}
