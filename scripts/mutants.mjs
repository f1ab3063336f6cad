// Breaks the core in one place after the other and says which breaks the core's tests notice. Each mutant is a file, a text
// in it and what stands there instead. Works in a copy of the project, which it is given; run by scripts/mutants.
import { execFileSync, spawnSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";

const [copy, leftOut = "", only = ""] = process.argv.slice(2);
const core = (file) => join(copy, "src/Falzkunst.Core", file);

const MUTANTS = [
  // Running
  ["Running/HeadRun.cs", "+ 2 * machine.LiftSeconds", "+ 0 * machine.LiftSeconds", "lifts cost nothing"],
  ["Running/HeadRun.cs", "time < settings.Times", "time < 1", "times over are not run"],
  [
    "Running/HeadRun.cs",
    "Math.Min(settings.SpeedMmPerSecond, machine.TopSpeed)",
    "settings.SpeedMmPerSecond",
    "machines have no top speed",
  ],
  ["Running/RunPlanner.cs", "wait = pass.Settings.WarmUpSeconds;", "wait = 300;", "foil warm-up hard-wired"],
  ["Running/RunPlanner.cs", "settings.ForceGrams * HalfCutForce", "settings.ForceGrams * 1.0", "half cuts press as hard as cuts"],
  ["Running/RunPlanner.cs", "Grow(FoilEdgeMm)", "Grow(0)", "foil ends with its lines"],
  [
    "Running/ToolChangePlan.cs",
    "if (changes < best.Changes)",
    "if (best.Holder < 0 || changes > best.Changes)",
    "tool changes chosen the worst way",
  ],
  ["Running/HeadPosition.cs", "if (left <= length) return Along(stroke, left);", "if (left <= length) return null;", "the head is nowhere"],
  ["Running/HeadPosition.cs", "Point.Lerp(a, b, distance / edge)", "a", "the head jumps from corner to corner"],
  ["Running/PassOrder.cs", ".OrderByDescending(g => g.Key.Work.FromBack)", ".OrderBy(g => g.Key.Work.FromBack)", "the back comes last"],
  ["Running/PassOrder.cs", ".ThenBy(g => g.Key.Stage)", ".ThenByDescending(g => g.Key.Stage)", "cuts before folds"],
  [
    "Running/MotionTime.cs",
    "2 * Math.Sqrt(distance / acceleration)",
    "Math.Sqrt(distance / acceleration)",
    "short ways take half their time",
  ],
  ["Running/MotionTime.cs", "Math.Min(speed, CornerSpeed(points[i - 1], a, b, acceleration))", "speed", "corners are run at full speed"],
  ["Running/TravelOrder.cs", "MoveRuns(order, start);", "", "travel is not improved"],
  ["Running/TravelOrder.cs", "order = EntryChoice.Best(lines, [.. order.Select(e => e.Line)], start);", "", "entries are not chosen"],
  ["Running/Dashes.cs", "count * (dash + gap) - gap", "count * (dash + gap)", "a perforation ends with a gap"],
  ["Running/PracticeMachine.cs", "is > 0 and var left", "is > 1e9 and var left", "heat need not be waited for"],
  // Designs
  [
    "Designs/LawOfPaper.cs",
    "Operation.Cut => isOutline ? Stage.OuterCuts : Stage.InnerCuts,",
    "Operation.Cut => Stage.OuterCuts,",
    "openings are cut with outlines",
  ],
  ["Designs/LawOfPaper.cs", "_ when line.EffectiveSettings.LeftOut => null,", "", "lines left out are run"],
  [
    "Designs/LawOfPaper.cs",
    "isOutline || line.Operation == Operation.Cut;",
    "line.Operation == Operation.Cut;",
    "scores run into outlines that are not cut",
  ],
  ["Designs/ScoreEnds.cs", "new CutEdges(piece, clearance + Slack)", "new CutEdges(piece, Slack)", "scores run to the edge"],
  ["Designs/ScoreEnds.cs", "p.Length >= LeastLengthMm", "p.Length >= 0", "crumbs of scores are run"],
  ["Designs/Paper.cs", "if (!HoldsInOutline(p, slack)) return false;", "", "paper has no edge"],
  ["Designs/SameShape.cs", "|| Fits(s, t, from, -Finer, slack)", "", "mirrored shapes are others"],
  ["Designs/Checking/Checks.cs", "path.Length > 4 * gap", "path.Length > 0 * gap", "every short cut was meant to close"],
  ["Designs/Checking/Checks.cs", "&& !Overlap(p, piece)", "", "layers are neighbours"],
  ["Designs/Motifs.cs", "private const double NearMm = 0.5;", "private const double NearMm = 5;", "motifs hang together from afar"],
  ["Designs/SheetLayout.cs", "Math.Max(0, inDrawer - Uncut.Count(s => s.SizeName == size))", "inDrawer", "sheets in use are still at hand"],
  // Projects and Editing
  ["Projects/Project.cs", ",{p.Quantity},{p.Paper.Hash}", ",{p.Paper.Hash}", "layouts do not hang on quantities"],
  ["Projects/Project.cs", "&& !LiesOnMarkedFace(Sheets)", "", "marked faces may lie down"],
  [
    "Projects/LeastWidth.cs",
    "setOut.LeastWidths.TryGetValue(stock, out var own)",
    'setOut.LeastWidths.TryGetValue("", out var own)',
    "widths set for a project are ignored",
  ],
  ["Editing/Placing.cs", "p.Pinned && !settled.Contains(p)", "false && !settled.Contains(p)", "settling moves what is pinned"],
  ["Editing/Placing.cs", "if (to.Stock != from.Stock) throw new EditRefused(Reason.OtherStock);", "", "copies move to other stocks"],
  [
    "Editing/Placing.cs",
    "Pinned = true }).ToList();\n        var hand",
    "Pinned = false }).ToList();\n        var hand",
    "what a hand moved is not pinned",
  ],
  ["Editing/Placing.cs", "if (sheet.RestKept is not null) throw", "if (false) throw", "a rest is kept twice"],
  ["Editing/Aligning.cs", "var gap = free / (boxes.Length - 1);", "var gap = free / boxes.Length;", "spreading ends too soon"],
  ["Editing/Aligning.cs", "OrderBy(i => Span(i).Low + Span(i).High)", "OrderBy(i => Span(i).Low)", "spreading goes by the near edge"],
];

const tests = join(copy, "tests/Falzkunst.Core.Tests");
const run = (args) =>
  spawnSync("dotnet", [join(tests, "bin/Release/net10.0/Falzkunst.Core.Tests.dll"), ...args], {
    cwd: tests,
    encoding: "utf8",
    timeout: 200_000,
  });
const rooms = ["Running", "Designs", "Projects", "Catalogue", "Commands"].flatMap((r) => ["-namespace", `Falzkunst.Core.Tests.${r}`]);
const without = leftOut
  .split(",")
  .filter(Boolean)
  .flatMap((c) => ["-class-", `*${c}`]);

let killed = 0;
const chosen = MUTANTS.filter((m) => new RegExp(only).test(m[3]));
for (const [file, from, to, words] of chosen) {
  const text = readFileSync(core(file), "utf8");
  if (!text.includes(from)) {
    console.log(`  not there    ${file}: ${words}`);
    continue;
  }
  writeFileSync(core(file), text.replace(from, to));
  try {
    execFileSync("dotnet", ["build", tests, "-c", "Release", "-v", "quiet", "-p:TreatWarningsAsErrors=false", "-clp:ErrorsOnly"], {
      stdio: "pipe",
    });
    const { status } = run([...rooms, ...without]);
    if (status !== 0) killed++;
    console.log(`  ${status !== 0 ? "killed      " : "SURVIVED    "} ${file}: ${words}`);
  } catch (e) {
    console.log(`  does not build ${file}: ${words}\n${String(e.stdout).split("\n")[0]}`);
  } finally {
    writeFileSync(core(file), text);
  }
}
console.log(`${killed} of ${chosen.length} killed`);
