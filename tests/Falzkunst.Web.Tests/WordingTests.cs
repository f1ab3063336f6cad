using System.Collections.Immutable;
using System.Reflection;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Nesting;
using Falzkunst.Core.Printing.Registration;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Running;
using Falzkunst.Web.Wording;

namespace Falzkunst.Web.Tests;

/// <summary>Whatever the core refuses or points out by a code has words for people.</summary>
public sealed class WordingTests
{
    private static void IsASentence(string words, string code)
    {
        Assert.True(words.Length > 12 && (char.IsUpper(words[0]) || words[0] == '“') && words.Contains(' ', StringComparison.Ordinal), $"{code}: {words}");
        // What may be written ends as it is written.
        Assert.True(words[^1] is '.' or ')' or '?' or '!' || words.Contains("Write: ", StringComparison.Ordinal), words);
        Assert.DoesNotContain(code, words.Replace(" ", "_", StringComparison.Ordinal), StringComparison.Ordinal);
        Assert.DoesNotContain("{", words, StringComparison.Ordinal);
    }

    [Fact]
    public void Every_reason_has_a_sentence_of_its_own()
    {
        var sentences = Enum.GetValues<Reason>().ToDictionary(r => r, r => ReasonWords.For(Refusal(r), Units.Millimetres));
        foreach (var (reason, words) in sentences) IsASentence(words, reason.ToString());
        Assert.Empty(sentences.GroupBy(s => s.Value).Where(g => g.Count() > 1).Select(g => string.Join(", ", g.Select(s => s.Key))));
    }

    private static EditRefused Refusal(Reason reason) => reason switch
    {
        Reason.OutOfRange => EditRefused.RangeMm(Measure.PieceSize, 1, 900, "width"),
        Reason.CannotNest => new EditRefused(reason, NestReason.PieceTooLarge, "Viaduct"),
        _ => new EditRefused(reason, "Viaduct", "Hill", "Kraft 240", "Left arch"),
    };

    [Fact]
    public void Every_measure_has_a_name() => Assert.All(Enum.GetValues<Measure>(), m => Assert.True(char.IsUpper(MeasureWords.For(m)[0])));

    [Fact]
    public void Lengths_in_refusals_are_told_in_the_units_of_the_project()
    {
        var refused = EditRefused.RangeMm(Measure.PieceSize, 0.1, 2540, "width");
        Assert.Contains("2540 mm", ReasonWords.For(refused, Units.Millimetres), StringComparison.Ordinal);
        Assert.Contains("100 in", ReasonWords.For(refused, Units.Inches), StringComparison.Ordinal);
    }

    [Fact]
    public void Every_finding_has_a_sentence()
    {
        var codes = typeof(FindingCodes).GetFields(BindingFlags.Public | BindingFlags.Static).Select(f => (string)f.GetValue(null)!).ToList();
        Assert.NotEmpty(codes);
        foreach (var code in codes)
        {
            var finding = new Finding(code, Severity.Major, "p1", "l2", null) { Name = "Viaduct", Other = "Hill", Operation = Operation.Score, LengthsMm = [3, 40] };
            IsASentence(FindingWords.For(finding, Units.Millimetres), code);
        }
    }

    [Fact]
    public void Every_way_not_to_fit_a_sheet_has_a_sentence()
    {
        var over = new Oversize(300, 200, 12, "A4", 200, 290);
        foreach (var code in Enum.GetValues<UnfitCode>().Except([UnfitCode.Sentence])) IsASentence(UnfitWords.For(new Unfit(code) { Sheets = 2, Oversize = over }), code.ToString());
        Assert.Equal("Told before.", UnfitWords.For(new Unfit(UnfitCode.Sentence) { Sentence = "Told before." }));
    }

    [Fact]
    public void Every_reason_why_a_machine_goes_not_on_has_a_sentence() =>
        Assert.All(Enum.GetValues<RunRefusal>(), r => IsASentence(RunWords.For(new CommandRefused(r, 12.3)), r.ToString()));

    [Fact]
    public void Every_reason_not_to_take_marks_for_read_has_two_sentences()
    {
        foreach (var why in Enum.GetValues<MarkTrouble>())
        {
            foreach (var corner in Enum.GetValues<MarkCorner>().Cast<MarkCorner?>().Append(null))
            {
                var (what, remedy) = MarkWords.Refusal(new MarkRefusal(corner, why, null));
                IsASentence($"{what}.", why.ToString());
                IsASentence(remedy, why.ToString());
            }
        }
    }

    [Fact]
    public void Every_work_of_a_hand_at_a_stop_has_a_sentence_and_every_stop_a_title()
    {
        var settings = new ToolSettings(Tool.FoilTip, 200, 20, 0, 120, 60, 1, 0.5);
        HandWork[] works = [new PrintPage("Chalk 200 printed, sheet 1", true), new LayPaper("Kraft 240, sheet 1", true), new PutToolIn(Tool.FoilTip, "#C9A227", 0.6, "left", settings), new PeelFoil(), new TapeFoil("#C9A227", new(0, 0, 40, 30)), new WarmUp(90), new TurnSheet("Kraft 240, sheet 1"), new LookAndUnload("Kraft 240, sheet 1"), new FindMarks("Chalk 200 printed, sheet 1", MarkSettings.Usual, new(10, 10, 200, 270), 210, 280, "", 2, 1)];
        Assert.Equal(typeof(HandWork).Assembly.GetTypes().Count(t => t.IsSubclassOf(typeof(HandWork))), works.Length);
        foreach (var kind in Enum.GetValues<StopKind>())
        {
            var stop = new Stop(kind, [.. works], StopWarning.Unloading, 0);
            Assert.True(char.IsUpper(StopWords.Title(stop)[0]));
            Assert.All(StopWords.Actions(stop), a => IsASentence(a, "Work"));
            IsASentence(StopWords.Warning(stop)!, nameof(StopWarning));
        }
    }

    [Fact]
    public void A_stop_says_how_much_foil_and_how_long_to_wait()
    {
        var actions = StopWords.Actions(new Stop(StopKind.Tools, [new TapeFoil("#C9A227", new(10, 10, 52.2, 41)), new WarmUp(90)], StopWarning.None, 90));
        Assert.Contains("42 × 31 mm", actions[0], StringComparison.Ordinal);
        Assert.Contains("1.5 minutes", actions[1], StringComparison.Ordinal);
    }
}
