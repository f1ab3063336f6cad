using System.CommandLine;
using System.Globalization;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Running;
using Falzkunst.Formats;
using Falzkunst.Lab;

CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
try
{
    var parsed = LabVerbs.Commands(result => Console.Out.WriteLine(LabJson.Write(result))).Parse(args);
    if (parsed.Errors.Count > 0) throw new LabRefused(Wrong(parsed));
    return await parsed.InvokeAsync(new InvocationConfiguration { EnableDefaultExceptionHandler = false });
}
catch (BudgetSpent spent)
{
    Console.Error.WriteLine("lab: " + ReadRefused.ForBudget(spent).Message);
    return 2;
}
catch (Exception e) when (e is LabRefused or ReadRefused or PlanRefused or EditRefused)
{
    Console.Error.WriteLine("lab: " + e.Message.ReplaceLineEndings(" "));
    return 2;
}

// What is wrong, and what there is, in one line.
static string Wrong(ParseResult parsed)
{
    var verb = LabVerbs.All.FirstOrDefault(v => v.Name == parsed.CommandResult.Command.Name);
    if (verb is not null) return $"{parsed.Errors[0].Message} Such as: {verb.Example}; more by: ./lab {verb.Name} --help";
    var known = string.Join(", ", LabVerbs.All.Select(v => v.Name));
    return parsed.UnmatchedTokens is [var word, ..]
        ? $"unknown verb “{word}”; known are {known}. Such as: {LabVerbs.All[0].Example}; more by: ./lab --help"
        : $"no verb given; known are {known}. Such as: {LabVerbs.All[0].Example}; more by: ./lab --help";
}
