// Reads many SVG files that none of us drew, writes back what was understood, renders both with librsvg at 600 px, and lists
// the files where more than 1 % of the ink differs. Run by scripts/real-art, which fetches the packages.
import { execFileSync, spawnSync } from "node:child_process";
import { mkdirSync, readdirSync, writeFileSync, statSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { PNG } from "pngjs";

const root = join(dirname(fileURLToPath(import.meta.url)), "..", "..");
const [folder, perPackage] = [process.argv[2], Number(process.argv[3])];
const work = join(folder, "compared");
const SIDE = 600,
  INK = 24,
  DIFFERS = 0.01; // px; of 255 from white; share of the ink
mkdirSync(work, { recursive: true });

function files(of) {
  const found = [];
  const walk = (at) => {
    for (const entry of readdirSync(at, { withFileTypes: true })) {
      const path = join(at, entry.name);
      if (entry.isDirectory()) walk(path);
      else if (entry.name.endsWith(".svg") && statSync(path).size < 3_000_000) found.push(path);
    }
  };
  walk(of);
  found.sort();
  // Evenly spread over the package, the same ones every time.
  const step = Math.max(1, found.length / perPackage);
  return Array.from({ length: Math.min(perPackage, found.length) }, (_, i) => found[Math.floor(i * step)]);
}

function render(svg, { width, height }) {
  const png = join(work, "picture.png");
  const tall = Math.max(1, Math.round((SIDE * height) / width));
  execFileSync("rsvg-convert", ["-w", SIDE, "-h", tall, "-b", "white", "-o", png, svg], { stdio: "pipe" });
  return PNG.sync.read(execFileSync("cat", [png], { maxBuffer: 1e8 }));
}

/** The share of the original's ink that is not the same in the copy. */
function difference(a, b) {
  if (a.width !== b.width || a.height !== b.height) return 1;
  let ink = 0,
    other = 0;
  for (let i = 0; i < a.data.length; i += 4) {
    const dark = Math.max(...[0, 1, 2].map((k) => Math.max(255 - a.data[i + k], 255 - b.data[i + k])));
    const differs = Math.max(...[0, 1, 2].map((k) => Math.abs(a.data[i + k] - b.data[i + k])));
    if (dark > INK) ink++;
    if (differs > INK) other++;
  }
  return ink === 0 ? 0 : other / ink;
}

const sources = process.argv.slice(4);
let read = 0,
  refused = 0;
const differing = [];
for (const source of sources) {
  for (const file of files(join(folder, "node_modules", source))) {
    const copy = join(work, "copy.svg");
    const lab = spawnSync(join(root, "lab"), ["import", file, "--svg", copy], { encoding: "utf8", maxBuffer: 1e8 });
    if (lab.status === 2) {
      refused++;
      console.log(`refused   ${source}/${basename(file)}: ${lab.stderr.trim()}`);
      continue;
    }
    if (lab.status !== 0) {
      console.log(`CRASHED   ${source}/${basename(file)}: ${lab.stderr.trim().split("\n")[0]}`);
      process.exitCode = 1;
      continue;
    }
    read++;
    const pieces = spawnSync(join(root, "lab"), ["pieces", file], { encoding: "utf8", maxBuffer: 1e8 });
    if (pieces.status !== 0) {
      console.log(`CRASHED   ${source}/${basename(file)} in pieces: ${pieces.stderr.trim().split("\n")[0]}`);
      process.exitCode = 1;
    }
    let original;
    try {
      original = render(file, JSON.parse(lab.stdout));
    } catch {
      console.log(`no picture of the original by librsvg: ${source}/${basename(file)}`);
      continue;
    }
    const share = difference(original, render(copy, JSON.parse(lab.stdout)));
    if (share > DIFFERS) {
      const warned = JSON.parse(lab.stdout).warnings.map((w) => w.code);
      differing.push({
        file: `${source}/${basename(file)}`,
        share: `${(share * 100).toFixed(1)} %`,
        warned: [...new Set(warned)].join(", ") || "NOT WARNED",
      });
      console.log(
        `differs   ${source}/${basename(file)} by ${(share * 100).toFixed(1)} % of its ink; warned: ${[...new Set(warned)].join(", ") || "NOTHING"}`,
      );
    }
  }
}
writeFileSync(join(work, "differing.json"), JSON.stringify(differing, null, 2));
console.log(
  `${read} files read from ${sources.length} packages, ${refused} refused, ${differing.length} differ, ${differing.filter((d) => d.warned === "NOT WARNED").length} of them without a warning`,
);
