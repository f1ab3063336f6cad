using System.Globalization;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Running;
using Falzkunst.Formats;
using Falzkunst.Lab;

CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
try
{
    var words = new Arguments(args);
    Func<object> verb = words.Verb switch
    {
        "import" => () => ImportVerb.Run(words),
        "pieces" => () => PiecesVerb.Run(words),
        "plan" => () => PlanVerb.Run(words),
        "export" => () => ExportVerb.Run(words),
        "thin" => () => ThinVerb.Run(words),
        "thicken" => () => ThickenVerb.Run(words),
        "nest" => () => NestVerb.Run(words),
        "" => throw new LabRefused("no verb given; known are import, pieces, plan, export, thin, thicken, nest"),
        var other => throw new LabRefused($"unknown verb “{other}”; known are import, pieces, plan, export, thin, thicken, nest"),
    };
    Console.Out.WriteLine(LabJson.Write(verb()));
    return 0;
}
catch (BudgetSpent spent)
{
    Console.Error.WriteLine("lab: " + ReadRefused.Of(spent).Message);
    return 2;
}
catch (Exception e) when (e is LabRefused or ReadRefused or PlanRefused or EditRefused)
{
    Console.Error.WriteLine("lab: " + e.Message.ReplaceLineEndings(" "));
    return 2;
}
