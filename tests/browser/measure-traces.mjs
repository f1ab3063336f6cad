// Traces icons that none of us drew, rendered by librsvg and then damaged, and says how far the boundaries lie from those of the
// drawing, how much of the ink is the same, in how many nodes and in what time; beside potrace on the same picture cut at half.
// Run by scripts/measure-traces, which fetches the icons.
import { execFileSync } from "node:child_process";
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { PNG } from "pngjs";
import { seeded } from "./seeded.mjs";

const root = join(dirname(fileURLToPath(import.meta.url)), "..", "..");
const [icons, count, seed] = [process.argv[2], Number(process.argv[3]), Number(process.argv[4])];
const only = process.argv.slice(5);
const work = join(icons, "..", "..", "..", "traced");
mkdirSync(work, { recursive: true });

const SIDE_MM = 60,
  INCH = 25.4,
  FINE = 6; // the drawing and what was traced are compared at so many times the picture's size

const path = (name) => join(work, name);
const run = (program, ...args) => execFileSync(program, args.map(String), { stdio: ["ignore", "pipe", "pipe"], maxBuffer: 1e9 });

/** Darkness of each dot, 0 to 255, of a drawing rendered so many dots wide. */
function rendered(svg, side) {
  run("rsvg-convert", "-w", side, "-h", side, "-b", "white", "-o", path("rendered.png"), svg);
  return darkness(readFileSync(path("rendered.png")));
}
function darkness(png) {
  const { data } = PNG.sync.read(png);
  return Uint8Array.from({ length: data.length / 4 }, (_, i) => 255 - data[4 * i + 1]);
}
function writePng(name, ink, side) {
  const png = new PNG({ width: side, height: side, colorType: 0 });
  ink.forEach((v, i) => png.data.set([255 - v, 255 - v, 255 - v, 255], 4 * i));
  writeFileSync(path(name), PNG.sync.write(png, { colorType: 0 }));
}
function writePgm(name, ink, side) {
  writeFileSync(path(name), Buffer.concat([Buffer.from(`P5 ${side} ${side} 255\n`), Buffer.from(ink.map((v) => 255 - v))]));
}

const each = (ink, made) => ink.map((v, i) => Math.max(0, Math.min(255, Math.round(made(v, i)))));
function noisy(share) {
  return (ink, _, random) => each(ink, (v) => v + share * 255 * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random()));
}
function blurred(ink, side) {
  const weights = Array.from({ length: 9 }, (_, k) => Math.exp(-((k - 4) ** 2) / 2)),
    sum = weights.reduce((a, b) => a + b);
  const pass = (from, dx, dy) =>
    Float64Array.from(from, (_, i) => {
      const [x, y] = [i % side, Math.floor(i / side)];
      let v = 0;
      for (let k = -4; k <= 4; k++) {
        const [u, w] = [x + k * dx, y + k * dy].map((c) => Math.max(0, Math.min(side - 1, c)));
        v += (weights[k + 4] * from[w * side + u]) / sum;
      }
      return v;
    });
  const done = pass(pass(ink, 1, 0), 0, 1);
  return each(ink, (_, i) => done[i]);
}
const DAMAGES = {
  clean: (ink) => ink,
  "noise of 5 %": noisy(0.05),
  "noise of 10 %": noisy(0.1),
  "blurred by a dot": blurred,
  "light falling by 30 %": (ink, side) => each(ink, (v, i) => 255 - (255 - v) * (1 - (0.3 * (i % side)) / side)),
  "JPEG of quality 40": (ink, side) => {
    writePgm("picture.pgm", ink, side);
    writeFileSync(path("picture.jpg"), run("cjpeg", "-quality", 40, path("picture.pgm")));
    const back = run("djpeg", "-grayscale", "-pnm", path("picture.jpg"));
    return Uint8Array.from(back.subarray(back.length - side * side), (v) => 255 - v);
  },
};

/** Places, in dots, where ink passes half between dots that lie side by side; what lies at the very rim of the picture is no boundary. */
function boundary(ink, side) {
  const found = [];
  for (let y = FINE; y < side - FINE; y++) {
    for (let x = FINE; x < side - FINE; x++) {
      const a = ink[y * side + x] - 127.5;
      if (x + 1 < side) {
        const b = ink[y * side + x + 1] - 127.5;
        if (a * b < 0) found.push((x + 0.5 + a / (a - b)) / FINE, (y + 0.5) / FINE);
      }
      if (y + 1 < side) {
        const b = ink[(y + 1) * side + x] - 127.5;
        if (a * b < 0) found.push((x + 0.5) / FINE, (y + 0.5 + a / (a - b)) / FINE);
      }
    }
  }
  return found;
}
/** Mean distance from the places of one boundary to the nearest of the other, at most 10 dots each. */
function meanDistance(from, to) {
  const cells = new Map();
  const key = (x, y) => Math.floor(x) * 65536 + Math.floor(y);
  for (let i = 0; i < to.length; i += 2) {
    const k = key(to[i], to[i + 1]);
    if (!cells.has(k)) cells.set(k, []);
    cells.get(k).push(i);
  }
  let sum = 0;
  for (let i = 0; i < from.length; i += 2) {
    let best = 10;
    for (let reach = 0; reach <= 10 && reach - 1 < best; reach++) {
      for (let dx = -reach; dx <= reach; dx++) {
        for (let dy = -reach; dy <= reach; dy++) {
          if (Math.max(Math.abs(dx), Math.abs(dy)) !== reach) continue;
          for (const k of cells.get(key(from[i] + dx, from[i + 1] + dy)) ?? [])
            best = Math.min(best, Math.hypot(to[k] - from[i], to[k + 1] - from[i + 1]));
        }
      }
    }
    sum += best;
  }
  return from.length ? (2 * sum) / from.length : 10;
}
function compared(ink, truth, side) {
  let [both, either] = [0, 0];
  for (let i = 0; i < ink.length; i++) [both, either] = [both + Math.min(ink[i], truth.ink[i]), either + Math.max(ink[i], truth.ink[i])];
  const own = boundary(ink, side);
  return { distance: (meanDistance(own, truth.boundary) + meanDistance(truth.boundary, own)) / 2, overlap: both / either };
}

/** Segments of path data, closing lines not counted. */
function segments(svg) {
  let n = 0;
  for (const [, d] of svg.matchAll(/ d="([^"]*)"/g)) {
    for (const [, way, numbers] of d.matchAll(/([A-Za-z])([^A-Za-z]*)/g)) {
      const each = { c: 6, s: 4, q: 4, t: 2, l: 2, h: 1, v: 1, a: 7 }[way.toLowerCase()];
      const length = numbers.match(/-?(?:\d*\.\d+|\d+\.?)(?:e-?\d+)?/g)?.length ?? 0;
      if (each) n += length / each;
      else if (way.toLowerCase() === "m") n += Math.max(0, length / 2 - 1);
    }
  }
  return n;
}

function ours(picture, side) {
  const said = JSON.parse(run(join(root, "lab"), "trace", picture, "--to", path("ours.svg")));
  const drawn = readFileSync(path("ours.svg"), "utf8").replaceAll(/fill="#\w{6}"/g, 'fill="#000"');
  writeFileSync(path("ours.svg"), drawn);
  return { nodes: segments(drawn), ms: said.elapsed_ms, ink: rendered(path("ours.svg"), side * FINE) };
}
function theirs(ink, side) {
  const rows = Math.ceil(side / 8);
  const bits = Buffer.alloc(rows * side);
  for (let i = 0; i < ink.length; i++) if (ink[i] >= 128) bits[Math.floor(i / side) * rows + ((i % side) >> 3)] |= 128 >> ((i % side) & 7);
  writeFileSync(path("cut.pbm"), Buffer.concat([Buffer.from(`P4 ${side} ${side}\n`), bits]));
  const begun = process.hrtime.bigint();
  run("potrace", "-s", "-o", path("theirs.svg"), path("cut.pbm"));
  const ms = Number(process.hrtime.bigint() - begun) / 1e6;
  return { nodes: segments(readFileSync(path("theirs.svg"), "utf8")), ms, ink: rendered(path("theirs.svg"), side * FINE) };
}

// Filled drawings, spread over the package by the seed.
const random = seeded(seed);
const all = readdirSync(icons)
  .filter((f) => f.endsWith("-fill.svg"))
  .sort();
const chosen = Array.from({ length: count }, () => join(icons, all.splice(Math.floor(random() * all.length), 1)[0]));
const mean = (values) => values.reduce((a, b) => a + b, 0) / values.length;
console.log(`${count} icons, seed ${seed}, ${chosen.reduce((n, f) => n + segments(readFileSync(f, "utf8")), 0)} nodes as drawn`);
console.log("| dpi | picture | distance, dots | potrace | overlap | potrace | lower on | nodes | potrace | more on | ms | potrace |");
console.log("|---|---|---|---|---|---|---|---|---|---|---|---|");
for (const dpi of [150, 300]) {
  const side = Math.round((SIDE_MM / INCH) * dpi);
  const truths = chosen.map((file) => {
    const ink = rendered(file, side * FINE);
    return { picture: rendered(file, side), ink, boundary: boundary(ink, side * FINE) };
  });
  for (const [name, damage] of Object.entries(DAMAGES)) {
    if (only.length && !only.some((o) => `${dpi} ${name}`.includes(o))) continue;
    const rows = truths.map((truth, k) => {
      const ink = damage(truth.picture, side, seeded(seed * 1000 + k));
      writePng("picture.png", ink, side);
      const both = [ours(path(name.startsWith("JPEG") ? "picture.jpg" : "picture.png"), side), theirs(ink, side)];
      return both.map((one) => ({ ...one, ...compared(one.ink, truth, side * FINE), ink: null }));
    });
    const [mine, other] = [0, 1].map((k) => rows.map((r) => r[k]));
    const lower = rows.filter(([a, b]) => a.overlap < b.overlap).length,
      more = rows.filter(([a, b]) => a.nodes > b.nodes).length;
    const cells = [
      dpi,
      name,
      ...[mine, other].map((of) => mean(of.map((r) => r.distance)).toFixed(3)),
      ...[mine, other].map((of) => mean(of.map((r) => r.overlap)).toFixed(4)),
      lower,
      ...[mine, other].map((of) => of.reduce((n, r) => n + r.nodes, 0)),
      more,
      ...[mine, other].map((of) => mean(of.map((r) => r.ms)).toFixed(1)),
    ];
    console.log(`| ${cells.join(" | ")} |`);
    if (process.env.EACH)
      rows.forEach(([a, b], k) =>
        console.log(
          chosen[k].split("/").pop(),
          a.distance.toFixed(3),
          b.distance.toFixed(3),
          a.overlap.toFixed(4),
          b.overlap.toFixed(4),
          a.nodes,
          b.nodes,
          a.ms,
        ),
      );
  }
}
