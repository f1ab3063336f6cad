using System.Globalization;
using System.Net;
using System.Text.RegularExpressions;
using CsCheck;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Commands;
using Falzkunst.Data.Json;

namespace Falzkunst.Web.Tests;

/// <summary>An action asked for by a form or a hand, and the same asked for in words.</summary>
public sealed partial class ActionTests(Site site) : IClassFixture<Site>
{
    private const int MostRounds = 80;
    private const int Edits = 300;

    /// <summary>The same edits every time; other seeds have been tried and gave the same.</summary>
    private const string Seed = "0N0XIzNsQ0O2";
    private const int EditsEach = 40;

    /// <summary>One action: as it is posted, and as it is written.</summary>
    private sealed record Asked(string Action, Dictionary<string, string> Fields, string Words)
    {
        public override string ToString() => $"{Action} {string.Join(' ', Fields.Select(f => $"{f.Key}={f.Value}"))} | {Words}";
    }

    private static readonly string[] Picks =
        ["p1", "p2", "p1", "p3", "p1,p2,p3", "p1:l2", "p1:l3", "p3:l2", "p3:l1", "p2:l1", "p1:l2,l3", "p1:l2;p3:l2", "p1:l1;p2:l1", "p1:l1~l4", "p4", "none", ""];

    private static readonly string[] OperationNames = [.. Core.Designs.OperationWords.Choices.Select(o => o.ToString())];

    private static Gen<T> Choose<T>(params T[] choices) => Gen.Int[0, choices.Length - 1].Select(i => choices[i]);

    private static readonly Gen<string> Mm = Gen.Int[-400, 900].Select(n => Text(n / 20.0));
    private static readonly Gen<string> SomeMm = Gen.Int[10, 1200].Select(n => Text(n / 20.0));
    private static readonly Gen<string> SmallMm = Gen.Int[2, 60].Select(n => Text(n / 20.0));
    private static readonly Gen<string> Number = Gen.Int[1, 6].Select(n => Text(n));
    private static readonly Gen<string> Operations = Gen.Int[0, OperationNames.Length - 1].Select(i => OperationNames[i]);

    private static string Text(double number) => number.ToString(CultureInfo.InvariantCulture);
    private static string Word(string operation) => Core.Designs.OperationWords.Word(Enum.Parse<Core.Designs.Operation>(operation));

    private static Asked Ask(string action, string words, params (string Name, string Value)[] fields) =>
        new(action, fields.ToDictionary(f => f.Name, f => f.Value), words);

    private static Gen<Asked> Drawn(string shape) => Gen.Select(Mm, Mm, SomeMm, SomeMm, Operations, Gen.Bool, (x, y, w, h, o, apart) => Ask(
        $"draw-{shape}", $"draw {shape} {x} {y} {w} {h}{(apart ? " apart" : " on piece")} for {Word(o)}", ("x", x), ("y", y), ("width", w), ("height", h), ("operation", o), ("onPiece", $"{!apart}")));

    private static readonly Gen<Asked> Any = Gen.OneOf(
        Gen.Select(Mm, Mm, (x, y) => Ask("move", $"move {x} {y}", ("dx", x), ("dy", y))),
        Gen.Select(Mm, Mm, (x, y) => Ask("place", $"place {x} {y}", ("left", x), ("top", y))),
        Gen.Select(SomeMm, SomeMm, (w, h) => Ask("resize", $"size {w} {h}", ("width", w), ("height", h))),
        Gen.Select(SomeMm, Gen.Bool, (w, free) => Ask("resize", $"width {w}{(free ? " free" : "")}", ("width", w), ("keepRatio", $"{!free}"))),
        Gen.Select(SomeMm, h => Ask("resize", $"height {h}", ("height", h))),
        Gen.Int[60, 150].Select(n => Ask("scale", $"scale {n}", ("percent", $"{n}"))),
        Gen.Int[-720, 720].Select(n => Ask("turn", $"turn {Text(n / 2.0)}", ("degrees", Text(n / 2.0)))),
        Gen.Bool.Select(across => Ask("mirror", across ? "mirror across" : "mirror down", ("leftRight", $"{across}"))),
        Gen.Const(Ask("duplicate", "duplicate")),
        Gen.Select(SmallMm, SmallMm, (x, y) => Ask("repeat", $"rows 1 columns 2 gap {x} {y}", ("rows", "1"), ("columns", "2"), ("gapX", x), ("gapY", y))),
        Gen.Bool.Select(upright => Ask("around", $"around 3{(upright ? " upright" : "")} at 20 30", ("count", "3"), ("upright", $"{upright}"), ("centreX", "20"), ("centreY", "30"))),
        Choose("Left", "Right", "Top", "Bottom").Select(e => Ask("reflect", $"reflect {e.ToLowerInvariant()}", ("edge", e))),
        Gen.Select(Choose("Left", "Right", "Top", "Bottom", "Middle", "Centre"), Choose("EachOther", "Card", "Piece"), (e, to) =>
            Ask("align", $"align {e.ToLowerInvariant()}{(to == "EachOther" ? "" : " " + to.ToLowerInvariant())}", ("edge", e), ("to", to))),
        Gen.Bool.Select(piece => Ask("centre", piece ? "centre piece" : "centre card", ("onPiece", $"{piece}"))),
        Gen.Bool.Select(across => Ask("spread", across ? "spread across" : "spread down", ("across", $"{across}"))),
        Operations.Select(o => Ask("operation", Word(o), ("operation", o))),
        Choose("Valley", "Mountain").Select(d => Ask("fold", $"fold {d.ToLowerInvariant()}", ("direction", d))),
        Gen.Bool.Select(on => Ask("half-cut", on ? "half cut" : "half cut off", ("on", $"{on}"))),
        Gen.Bool.Select(on => Ask("from-back", on ? "from back" : "from back off", ("on", $"{on}"))),
        Gen.Bool.Select(on => Ask("leave-out", on ? "leave out" : "take along", ("on", $"{on}"))),
        Gen.Select(SmallMm, SmallMm, (d, g) => Ask("dash", $"dash {d} {g}", ("dash", d), ("gap", g))),
        SmallMm.Select(d => Ask("dash", $"dash {d}", ("dash", d))),
        SmallMm.Select(w => Ask("tip", $"tip {w}", ("width", w))),
        Choose(("pen-violet", "violet"), ("pen-rust", "Rust, medium"), ("foil-gold", "gold foil")).Select(t => Ask("tool", $"tool {t.Item2}", ("tool", t.Item1))),
        Choose("Night tram", "Für Ärger & Co.").Select(t => Ask("write", $"write {t}", ("words", t))),
        Choose("Depot", "One\nTwo").Select(t => Ask("words", $"words {t.Replace("\n", "\\n", StringComparison.Ordinal)}", ("words", t))),
        Choose(("quill", "quill"), ("line-round", "Line round")).Select(f => Ask("face", $"face {f.Item2}", ("face", f.Item1))),
        SmallMm.Select(d => Ask("letters", $"letters {d} between 10 centre", ("height", d), ("between", "10"), ("align", "Centre"))),
        Gen.OneOf(Gen.Const(Ask("text-box", "text box")), Gen.Const(Ask("text-box", "text box inside 4", ("inside", "4"))), Gen.Const(Ask("text-box", "text box 30", ("width", "30")))),
        Gen.OneOf(Gen.Const(Ask("along", "along")), Gen.Const(Ask("along", "along arc 90", ("arc", "90"))), Gen.Const(Ask("along", "along line l1 offset 1 reversed", ("line", "l1"), ("offset", "1"), ("reversed", "true")))),
        Choose("#7b4ba8", "#10a040", "plum").Select(c => Ask("colour", $"colour {c}", ("ink", c))),
        Gen.Select(Choose("Parallel", "Crossed", "Inward"), SmallMm, (p, d) => Ask("fill", $"fill {p.ToLowerInvariant()} {d} at 30", ("pattern", p), ("distance", d), ("angle", "30"))),
        SmallMm.Select(d => Ask("fill", $"fill {d}", ("distance", d))),
        Gen.OneOf(Gen.Const(Ask("fill", "fill none")), Gen.Const(Ask("fill", "fill at 60", ("angle", "60")))),
        Gen.Int[20, 260].Select(n => Ask("settings", $"settings force {n}", ("force", $"{n}"))),
        Gen.Int[5, 90].Select(n => Ask("settings", $"settings speed {n} times 2", ("speed", $"{n}"), ("times", "2"))),
        Gen.Const(Ask("stock-settings", "settings")),
        Gen.Bool.Select(on => Ask("lock-size", on ? "lock size" : "free size", ("on", $"{on}"))),
        Gen.OneOf(Gen.Const(Ask("close", "close")), Gen.Const(Ask("trim", "trim")), Gen.Const(Ask("make-plain", "make plain"))),
        Gen.Select(SmallMm, Operations, Gen.Bool, (d, o, sharp) => Ask(
            "edge-line", $"edge line {d}{(sharp ? " sharp" : "")} for {Word(o)}", ("inset", d), ("operation", o), ("sharp", $"{sharp}"))),
        Gen.OneOf(Drawn("rectangle"), Drawn("ellipse"), Drawn("arch"), Drawn("slot"), Drawn("polygon"), Drawn("star")),
        Gen.Select(Mm, Mm, Mm, Mm, (x, y, toX, toY) => Ask("draw-line", $"draw line {x} {y} {toX} {toY} held for score", ("fromX", x), ("fromY", y), ("toX", toX), ("toY", toY), ("held", "true"), ("operation", "Score"))),
        Gen.Select(Number, Mm, Mm, (n, x, y) => Ask("node-move", $"node {n} move {x} {y}", ("node", $"{int.Parse(n, CultureInfo.InvariantCulture) - 1}"), ("x", x), ("y", y))),
        Number.Select(n => Ask("node-delete", $"node {n} delete", ("node", $"{int.Parse(n, CultureInfo.InvariantCulture) - 1}"))),
        Number.Select(n => Ask("node-add", $"node {n} add 40", ("segment", $"{int.Parse(n, CultureInfo.InvariantCulture) - 1}"), ("percent", "40"))),
        Number.Select(n => Ask("node-smooth", $"node {n} smooth", ("node", $"{int.Parse(n, CultureInfo.InvariantCulture) - 1}"))),
        Choose(("slate-220", "slate 220"), ("kraft-240", "kraft 240")).Select(s => Ask("stock", $"stock {s.Item2}", ("stock", s.Item1))),
        Gen.Int[0, 5].Select(n => Ask("quantity", $"quantity {n}", ("quantity", $"{n}"))),
        Choose("Left hill", "Doorway & more").Select(n => Ask("name", $"name {n}", ("name", n))),
        Choose("Up", "Down", "Top", "Bottom").Select(to => Ask("layer", $"layer {to.ToLowerInvariant()}", ("to", to))),
        Gen.Bool.Select(on => Ask("hide", on ? "hide" : "show", ("on", $"{on}"))),
        Gen.Frequency((1, Gen.Const(Ask("lock", "lock"))), (4, Gen.Const(Ask("lock", "unlock", ("on", "false"))))),
        Gen.OneOf(Gen.Const(Ask("take-apart", "take apart")), Gen.Const(Ask("merge", "merge")), Gen.Const(Ask("give-to", "give to p1", ("to", "p1")))),
        Gen.Const(Ask("keep-aside", "keep aside Other", ("name", "Other"))),
        Gen.Const(Ask("take-up", "take up 1", ("variant", "1"))),
        Gen.Select(SmallMm, d => Ask("thicken", $"thicken by {d} sharp gap 0.3", ("amount", d), ("even", "true"), ("sharp", "true"), ("gap", "0.3"))),
        SmallMm.Select(d => Ask("border", $"border {d} ring 2 on kraft 240", ("by", d), ("ring", "2"), ("stock", "kraft-240"))),
        SmallMm.Select(d => Ask("change-border", $"change border {d}", ("by", d))),
        Choose(("Unite", "unite"), ("Subtract", "subtract"), ("Intersect", "overlap")).Select(h => Ask("combine", h.Item2, ("how", h.Item1))),
        Gen.Const(Ask("combine", "subtract keep from p2", ("how", "Subtract"), ("others", "Stays"), ("keeper", "p2"))),
        Gen.Const(Ask("combine", "unite live", ("how", "Unite"), ("others", "IsFollowed"))),
        Gen.OneOf(Gen.Const(Ask("part", "part")), Gen.Const(Ask("crop", "crop")), Gen.Const(Ask("join-ends", "join ends 30", ("gap", "30")))),
        Gen.OneOf(Gen.Const(Ask("list", "list Ada; Ben", ("names", "Ada\nBen"))), Gen.Const(Ask("row", "row 1 copies 3", ("row", "1"), ("copies", "3")))),
        Gen.OneOf(Gen.Const(Ask("fit-words", "fit words")), Gen.Const(Ask("cut-out", "cut out bar 2 on kraft 240", ("tie", "Bar"), ("size", "2"), ("stock", "kraft-240"))), Gen.Const(Ask("tie", "tie bridges 1", ("tie", "Bridges"), ("size", "1")))),
        SmallMm.Select(d => Ask("small-things", $"small things {d}", ("size", d))),
        Choose("#e6d9b8", "plum", "none").Select(c => Ask("print-ground", $"print ground {c}", ("fill", c))),
        SmallMm.Select(d => Ask("print-border", $"print border {d} width 1 dash 2 1 #335577", ("inset", d), ("width", "1"), ("dash", "2"), ("gap", "1"), ("colour", "#335577"))),
        SmallMm.Select(d => Ask("paint", $"print line #24313a {d} dash 2 1 round", ("colour", "#24313a"), ("width", d), ("dash", "2"), ("gap", "1"), ("round", "true"))),
        Choose("#e6d9b8", "none").Select(c => Ask("paint", $"print fill {c}", ("fill", c))),
        Gen.OneOf(Gen.Const(Ask("cut-only-outside", "cut only outside")), Gen.Const(Ask("follow-print", "follow print")), Gen.Const(Ask("turn-picture", "turn picture back", ("onBack", "true")))),
        SmallMm.Select(d => Ask("least-width", $"least width {d}", ("width", d))));

    [Fact]
    public async Task Hundreds_of_random_edits_are_the_same_as_requests_and_as_commands()
    {
        var done = new Dictionary<string, int>();
        var round = 0;
        foreach (var asked in Gen.Select(Any, Choose(Picks)).Array[EditsEach].Array[MostRounds].Single(_ => true, Seed))
        {
            if (done.Values.Sum() >= Edits) break;
            // Every round has looks of its own, so that no rule remembered in one gives another other operations.
            var art = Art.Replace("#", $"#{round++:00}", StringComparison.Ordinal);
            Guid[] ids = [await site.WithArtAsync("As requests", "action.svg", art), await site.WithArtAsync("As commands", "action.svg", art)];
            var head = 2;
            foreach (var (ask, picked) in asked)
            {
                var byForm = await site.DoAsync(ids[0], ask.Action, ask.Fields, picked, head);
                var byWord = await site.PostAsync($"/projects/{ids[1]}/pieces?handler=Command", new() { ["text"] = ask.Words }, head, picked: picked);
                Assert.True(byForm.StatusCode == byWord.StatusCode, $"{ask} of {picked}: {byForm.StatusCode}, {byWord.StatusCode}: {Said(byForm)} {Said(byWord)}");
                if (byForm.StatusCode != HttpStatusCode.OK)
                {
                    Assert.Equal(HttpStatusCode.UnprocessableEntity, byForm.StatusCode);
                    continue;
                }
                var (form, word) = (await site.ProjectAsync(ids[0]), await site.ProjectAsync(ids[1]));
                Assert.Equal(form.Head, word.Head);
                if (form.Head == head) continue;
                head = form.Head;
                done[ask.Action] = done.GetValueOrDefault(ask.Action) + 1;
                Assert.Equal(StoredJson.Write(await site.EditAsync(ids[0], head)), StoredJson.Write(await site.EditAsync(ids[1], head)));
                Assert.Equal(Keys().Replace(ProjectText.Write(form.Value), "file"), Keys().Replace(ProjectText.Write(word.Value), "file"));
            }
        }
        // What is always refused would show nothing.
        Assert.True(done.Values.Sum() >= Edits && done.Count >= 40, $"{done.Values.Sum()} were done, of {done.Count} kinds");
    }

    private static string Said(HttpResponseMessage answer) => string.Concat(answer.Headers.TryGetValues("HX-Trigger", out var told) ? told : []);

    /// <summary>Keys of files, which differ from project to project.</summary>
    [GeneratedRegex("[0-9a-f]{8}-[0-9a-f-]{27}")]
    private static partial Regex Keys();

    [Fact]
    public void Every_action_that_a_hand_can_ask_for_can_be_asked_for_in_words()
    {
        var words = CommandLine.All.Select(c => c.Name).ToHashSet();
        var unnamed = BenchAction.ByName.Keys.Select(n => n.Replace('-', ' ')).Where(n => !words.Contains(n) && !n.StartsWith("node ", StringComparison.Ordinal));
        // An operation goes by its own word, a fold by its way, the stock's settings by "settings" alone, repeating by "rows", a size by "size", "width" or "height", and "show all" is "show" with a word behind it.
        // The operation of a look is given from a line that has it, which a hand points at. The card's size is "card".
        // Pieces are combined by "unite", "subtract" and "overlap"; a tie is moved by "move tie". Lines are painted by "print fill", "print line" and
        // "print over"; "print pages off" prints nothing.
        Assert.Equal(["card size", "combine", "fold", "operation", "operation of look", "paint", "print nothing", "repeat", "resize", "stock settings", "tie by", "tie to"], unnamed.Except(["show all"]));
    }

    private const string Art = """
        <svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="200mm" viewBox="0 0 300 200" fill="none" stroke="#2222" stroke-width=".3">
          <path id="wide" d="M10 10h100v60h-100ZM20 20c10 0 10 20 0 20c-10 0 -10 -20 0 -20Z"/><path d="M60 10v60" stroke="#20E0" stroke-dasharray="3 2"/>
          <rect id="small" x="150" y="20" width="40" height="30"/><circle id="round" cx="240" cy="60" r="25"/><path d="M230 60h20" stroke="#C020"/>
        </svg>
        """;
}
