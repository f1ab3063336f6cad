using System.CommandLine;

namespace Falzkunst.Lab;

/// <summary>An option of a verb.</summary>
/// <param name="Name">With its dashes.</param>
/// <param name="Value">What stands behind it; empty for a flag.</param>
/// <param name="What">What it does.</param>
internal sealed record LabOption(string Name, string Value, string What);

/// <summary>One computation.</summary>
/// <param name="Name">The verb.</param>
/// <param name="What">What it does.</param>
/// <param name="File">What file it takes.</param>
/// <param name="Options">Its options.</param>
/// <param name="Example">A call that works.</param>
/// <param name="Run">Does it.</param>
internal sealed record LabVerb(string Name, string What, string File, LabOption[] Options, string Example, Func<Arguments, object> Run);

/// <summary>All that the lab computes.</summary>
internal static class LabVerbs
{
    private const string Art = "an SVG or DXF file";

    public static readonly IReadOnlyList<LabVerb> All =
    [
        new("import", "Reads a file and says what was understood of it.", "an SVG or DXF file, or a picture",
            [new("--svg", "OUT", "writes back what was understood")], "./lab import card.svg --svg back.svg", ImportVerb.Run),
        new("pieces", "Puts a file's lines together to pieces.", Art,
            [new("--rules", "RULES.json", "look rules to give operations by")], "./lab pieces card.svg --rules rules.json", PiecesVerb.Run),
        new("thin", "Finds every place narrower than a width.", Art,
            [new("--min", "MM", "the width, needed"), new("--svg", "OUT", "writes a picture of the places")], "./lab thin lace.svg --min 0.8", ThinVerb.Run),
        new("thicken", "Makes thin parts as wide as wanted.", Art,
            [new("--min", "MM", "the width wanted, needed"), new("--gap", "MM", "air that stays open"), new("--even", "MM", "grows everything by so much instead"), new("--svg", "OUT", "writes the result")],
            "./lab thicken lace.svg --min 0.8 --gap 0.4 --svg strong.svg", ThickenVerb.Run),
        new("nest", "Puts pieces on sheets.", "a nest job as JSON",
            [new("--seconds", "S", "time limit"), new("--seed", "N", "where the search begins"), new("--svg", "OUT", "writes a picture of the sheets")], "./lab nest job.json --seconds 30 --seed 1", NestVerb.Run),
        new("plan", "Plans how a machine runs a file.", Art,
            [new("--machine", "NAME", "the machine, needed"), new("--stock", "NAME", "the stock")], "./lab plan card.svg --machine twin-330 --stock chalk-200", PlanVerb.Run),
        new("export", "Writes a file for machines.", Art,
            [new("--as", "FORMATS", "svg, hpgl, pdf, parted by commas, needed"), new("--to", "DIR", "the folder, needed"), new("--knife", "", "blade geometry")],
            "./lab export card.svg --as svg,hpgl --to out", ExportVerb.Run),
        new("text", "Sets words in a face.", "the words",
            [new("--face", "NAME", "a face that ships, or a file, needed"), new("--height", "MM", "height of capital letters, needed"), new("--to", "OUT.svg", "the file to write, needed")],
            "./lab text \"Night tram\" --face quill --height 12 --to words.svg", TextVerb.Run),
        new("combine", "Unites, subtracts or intersects two areas.", "SVG whose first two closed paths are the areas",
            [new("--by", "HOW", "unite, subtract or intersect, needed"), new("--to", "OUT.svg", "the file to write, needed")],
            "./lab combine two.svg --by subtract --to rest.svg", CombineVerb.Run),
        new("trace", "Makes lines of a picture.", "PNG, JPEG, WebP, BMP, GIF or TIFF",
            [new("--to", "OUT.svg", "the file to write, needed"), new("--mode", "MODE", "rim, areas, centre or colours; areas where none is given"),
                new("--threshold", "0..1", "from how much ink a dot counts"), new("--tolerance", "DOTS", "how near curves keep to what is seen"), new("--colours", "N", "at most so many colours")],
            "./lab trace lantern.png --mode centre --to lantern.svg", TraceVerb.Run),
        new("marks", "Reads the registration marks of a printed page from its scan or photo.", "PNG, JPEG, WebP, BMP, GIF or TIFF",
            [new("--layout", "LAYOUT.json", "where the marks are, needed"), new("--dpi", "N", "dots to the inch; as the file says where not given"), new("--taken-by", "WHAT", "scanner, camera or either; either where not given")],
            "./lab marks scan.png --layout page.json", MarksVerb.Run),
    ];

    /// <summary>The command line that knows them.</summary>
    public static RootCommand Commands(Action<object> result)
    {
        var root = new RootCommand($"Computations on card designs, from the shell: one JSON object out. Lengths in mm, y down.\n\nExample: {All[0].Example}");
        foreach (var verb in All)
        {
            var file = new Argument<string?>("FILE") { Description = verb.File, Arity = ArgumentArity.ZeroOrOne };
            var command = new Command(verb.Name, $"{verb.What}\n\nExample: {verb.Example}") { file };
            var options = verb.Options.Select(o => new Option<string?>(o.Name)
            {
                Description = o.What,
                HelpName = o.Value,
                Arity = o.Value.Length == 0 ? ArgumentArity.Zero : ArgumentArity.ExactlyOne,
            }).ToList();
            options.ForEach(command.Options.Add);
            command.SetAction(parsed => result(verb.Run(new Arguments(
                verb.Name, parsed.GetValue(file), options.Where(o => parsed.GetResult(o) is { Implicit: false }).ToDictionary(o => o.Name, o => parsed.GetValue(o) ?? "")))));
            root.Subcommands.Add(command);
        }
        return root;
    }
}
