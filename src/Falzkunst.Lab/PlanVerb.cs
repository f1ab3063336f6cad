using System.Text.Json;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Running;

namespace Falzkunst.Lab;

internal static class PlanVerb
{
    public static object Run(Arguments arguments)
    {
        var (bytes, _) = arguments.File();
        var machine = Pick(SeedCatalogue.Machines, arguments.Option("--machine") ?? throw new LabRefused("plan needs --machine"), m => m.Key, m => m.Name, "machine");
        var stock = Pick(SeedCatalogue.Stocks, arguments.Option("--stock") ?? "chalk-200", s => s.Key, s => s.Name, "stock");
        var drawing = ArtFile.Read(bytes);
        var (plan, milliseconds) = Timed.Run(() =>
            RunPlanner.Plan(ArtFile.Lines(ArtFile.Assemble(drawing, [])), "the sheet", drawing.Width, drawing.Height, machine, stock));
        return new
        {
            Passes = plan.Passes.Select(p => new
            {
                Operation = p.Operation.Word(),
                p.Title,
                Tool = p.Tool.Name(),
                p.Ink,
                p.Holder,
                Lines = p.Lines.Length,
                DrawLength = Math.Round(p.DrawLength, 3),
                TravelLength = Math.Round(p.TravelLength, 3),
                Seconds = Math.Round(p.Seconds, 3),
            }),
            Stops = plan.Steps.OfType<Stop>().Select(s => new { Kind = Word(s.Kind), Work = s.Work.Select(w => Word(w.GetType().Name)), MustNot = Word(s.MustNot), s.WaitSeconds }),
            plan.ToolChanges,
            Seconds = Math.Round(plan.Seconds, 3),
            ElapsedMs = milliseconds,
        };
    }

    /// <summary>A name of the code as the lab writes it: lower case, with hyphens.</summary>
    private static string Word(object name) => JsonNamingPolicy.KebabCaseLower.ConvertName($"{name}");

    private static T Pick<T>(IReadOnlyList<T> all, string wanted, Func<T, string> key, Func<T, string> name, string what) =>
        all.FirstOrDefault(t => key(t).Equals(wanted, StringComparison.OrdinalIgnoreCase) || name(t).Equals(wanted, StringComparison.OrdinalIgnoreCase))
        ?? throw new LabRefused($"there is no {what} “{wanted}”; known are {string.Join(", ", all.Select(key))}");
}
