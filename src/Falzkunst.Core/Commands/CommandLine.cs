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

    public static readonly ImmutableArray<Command> All = [.. ArrangeCommands.All, .. BuildCommands.All, .. LineCommands.All, .. DrawCommands.All, .. TextCommands.All, .. PieceCommands.All, .. DetailCommands.All, .. PrintCommands.All, .. ProjectCommands.All];

    private static readonly ImmutableArray<Command> LongestNameFirst = [.. All.OrderByDescending(c => c.Name.Length)];

    /// <summary>The action that a text means.</summary>
    /// <exception cref="EditRefused">The text is no command, or lacks something.</exception>
    public static BenchAction Read(string text, BenchContext context)
    {
        var trimmed = text.Trim();
        if (trimmed.Length == 0) throw new EditRefused(Reason.CommandEmpty);
        if (trimmed.Length > LongestText) throw new EditRefused(Reason.CommandTooLong, LongestText);
        if (Named(trimmed, context) is { } action) return action;
        // A plain word that means one command is as good as its name.
        if (CommandSynonyms.Meant(trimmed) is [var meant] && Named(Renamed(trimmed, meant), context) is { } other) return other;
        var first = trimmed.Split(' ')[0];
        var near = CommandSynonyms.Meant(trimmed) is { IsEmpty: false } several ? several : CommandSynonyms.Nearest(first, All.Select(c => c.Name));
        throw new EditRefused(Reason.NoSuchCommand, first, near.ToList());
    }

    private static BenchAction? Named(string text, BenchContext context)
    {
        foreach (var command in LongestNameFirst)
        {
            if (!text.StartsWith(command.Name, StringComparison.OrdinalIgnoreCase)) continue;
            if (text.Length > command.Name.Length && !char.IsWhiteSpace(text[command.Name.Length])) continue;
            var words = new CommandWords(text[command.Name.Length..], command.Usage, context.Units);
            var action = command.Make(context, words);
            words.End();
            return action;
        }
        return null;
    }

    /// <summary>The text with a command's name where its word was.</summary>
    private static string Renamed(string text, string name)
    {
        var words = text.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var taken = words.Length > 1 && !CommandSynonyms.Meant($"{words[0]} {words[1]}").SequenceEqual(CommandSynonyms.Meant(words[0])) ? 2 : 1;
        return string.Join(' ', words.Skip(taken).Prepend(name));
    }
}
