// Paints scenes in a worker, so that panning never waits for forty thousand segments. A picture is wider than the screen by
// an overscan on each side; the page moves it about until the next one is there.
import { reachOf } from "./boxes.js";
import { Damage } from "./damage.js";
import { strokes } from "./marks.js";
import { copyOf, lineOf } from "../picked.js";
import { complete } from "./scene.js";

let scene = null;
let shapes = new Map();
let canvas = new OffscreenCanvas(1, 1);

const damage = new Damage();

onmessage = async ({ data }) => {
  if (data.scene) {
    scene = complete(data.scene, scene);
    const kept = new Map();
    for (const [hash, lines] of Object.entries(scene.shapes)) kept.set(hash, shapes.get(hash) ?? lines.map(d => new Path2D(d)));
    shapes = kept;
    const versions = new Set(Object.values(scene.pieces).map(p => p.version));
    for (const version of groups.keys()) if (!versions.has(version)) groups.delete(version);
    outlines.clear();
  }
  if (data.paint && scene) {
    const began = performance.now();
    // What is picked may be thousands of lines, and is sent when it changes.
    if (data.paint.selected !== undefined) {
      selected = data.paint.selected;
      picks++;
      outlines.clear();
    }
    paint(data.paint);
    // A copy: what is painted stays, and is painted over where something changes.
    const picture = await createImageBitmap(canvas);
    postMessage({ picture, took: performance.now() - began, number: data.paint.number }, [picture]);
  }
};

const groups = new Map();
let selected = null;
let picks = 0;

/**
 * The lines of an item gathered by how they are drawn: one stroke call a kind instead of one a line. Asked at every paint, found
 * once for a piece and all its copies.
 */
function gathered(item) {
  let found = groups.get(item.version);
  if (found) return found;
  const lines = shapes.get(item.shape);
  const paper = new Path2D(), kinds = new Map();
  item.lines.forEach((line, i) => {
    if (line.role !== "i") paper.addPath(lines[i]);
    const mark = line.mark ?? "", kind = line.op + (line.ink ?? "") + mark;
    if (!kinds.has(kind)) kinds.set(kind, { op: line.op, colour: colourOf(line), mark, path: new Path2D(), fill: null });
    const to = kinds.get(kind);
    to.path.addPath(pathOf(item, line, lines[i]));
    if (line.id in item.fills) (to.fill ??= new Path2D()).addPath(new Path2D(item.fills[line.id]));
  });
  // What a score loses where it stops short of a cut is shown faint.
  const isCutBack = Object.keys(item.scores).length > 0, cutBack = isCutBack ? new Path2D() : null;
  item.lines.forEach((line, i) => { if (line.id in item.scores) cutBack.addPath(lines[i]); });
  found = { paper, cutBack, kinds: [...kinds.values()].sort((a, b) => order(a.op) - order(b.op)) };
  groups.set(item.version, found);
  return found;
}

/** A line as it runs: as drawn, or a score as it was fitted. */
const pathOf = (item, line, drawn) => line.id in item.scores ? new Path2D(item.scores[line.id]) : drawn;
const colourOf = line => line.ink ?? scene.colours[line.op];
const order = op => ["print", "emboss", "draw", "foil", "score", "perforate", "aid", "cut"].indexOf(op);

function paint(asked) {
  const { view, width, height, pixelRatio, layout } = asked;
  const w = Math.round(width * pixelRatio), h = Math.round(height * pixelRatio);
  if (canvas.width !== w || canvas.height !== h) {
    canvas = new OffscreenCanvas(w, h);
    damage.forget();
  }
  const g = canvas.getContext("2d");
  const chosen = scene.layouts.find(l => l.name === layout) ?? scene.layouts[0];
  const places = placesToPaint(asked, chosen);
  g.save();
  g.setTransform(1, 0, 0, 1, 0, 0);
  if (places) {
    const whole = new Path2D(), s = view.scale * pixelRatio;
    // Along whole pixels, so that a place's rim is not painted twice over itself.
    for (const [x0, y0, x1, y1] of places) {
      const [left, top] = [Math.floor(x0 * s + view.x * pixelRatio), Math.floor(y0 * s + view.y * pixelRatio)];
      whole.rect(left, top, Math.ceil(x1 * s + view.x * pixelRatio) - left, Math.ceil(y1 * s + view.y * pixelRatio) - top);
    }
    g.clip(whole);
  }
  g.clearRect(0, 0, canvas.width, canvas.height);
  paintAll(g, asked, chosen, places);
  g.restore();
}

/** The places of the table that differ from the picture before; null for all of it. */
function placesToPaint({ view, width, height, pixelRatio, highlight, progress, show }, chosen) {
  const { items, frames, loose, name, widths } = chosen;
  // Widths, previews and what has run lie over everything, and change with it.
  if (progress || show?.preview || (show?.widths && widths)) {
    damage.forget();
    return null;
  }
  const look = JSON.stringify([view, width, height, pixelRatio, name, frames, loose, scene.colours]);
  return damage.since(look, items, items.map(item => [
    item.version, item.map, item.piece === highlight, selected?.copies?.includes(copyOf(item)), selected?.pieces.includes(item.piece) ? picks : 0,
  ].join()), view.scale);
}

function paintAll(g, { view, width, height, pixelRatio, highlight, progress, show }, chosen, places) {
  const base = new DOMMatrix([view.scale * pixelRatio, 0, 0, view.scale * pixelRatio, view.x * pixelRatio, view.y * pixelRatio]);
  const seen = { minX: -view.x / view.scale, minY: -view.y / view.scale, maxX: (width - view.x) / view.scale, maxY: (height - view.y) / view.scale };
  g.setTransform(base);
  for (const frame of chosen.frames) paintFrame(g, frame, view.scale);
  for (const item of chosen.items) {
    if (!isSeen(item, seen) || (places && !places.some(([minX, minY, maxX, maxY]) => isSeen(item, { minX, minY, maxX, maxY })))) continue;
    g.setTransform(base.multiply(new DOMMatrix(item.map)));
    const unit = 1 / (view.scale * Math.sqrt(Math.abs(item.map[0] * item.map[3] - item.map[1] * item.map[2])));
    if (progress && item.runs) paintRunning(g, item, unit, progress);
    else paintItem(g, item, unit);
    if (selected?.copies?.includes(copyOf(item))) outline(g, shapes.get(item.shape)[0], 2.4 * unit);
    if (item.piece === highlight) outline(g, shapes.get(item.shape)[0], 4 * unit);
    if (selected?.pieces.includes(item.piece)) {
      if (selected.lines.length === 0) outline(g, shapes.get(item.shape)[0], 2.4 * unit);
      else outline(g, pickedLines(item), 3 * unit);
    }
  }
  g.setTransform(base);
  const isPreviewed = show?.preview && !show.before;
  if (isPreviewed) paintPreview(g, show.preview, 1 / view.scale);
  else if (show?.widths && chosen.widths) paintWidths(g, chosen.widths, chosen.least);
  for (const line of chosen.loose) strokes(g, line.op, colourOf(line), new Path2D(line.path), 1 / view.scale, "#F1ECE2");
}

// The picked lines of a piece in one path.
const outlines = new Map();
function pickedLines(item) {
  if (!outlines.has(item.piece)) {
    const path = new Path2D(), lines = shapes.get(item.shape), some = new Set(selected.lines);
    item.lines.forEach((line, i) => { if (some.has(lineOf(item.piece, line.id))) path.addPath(lines[i]); });
    outlines.set(item.piece, path);
  }
  return outlines.get(item.piece);
}

const NEAR_LIMIT = [0xE0, 0xA1, 0x00], HALF_OF_IT = [0x8C, 0x2D, 0x62];

// Along the middle line as broad as the material is there, in the colour of that width: all colour, no shadow over the edge.
function paintWidths(g, widths, least) {
  g.setLineDash([]);
  g.lineCap = "round";
  for (const { line } of widths) {
    for (let i = 0; i < line.length; i += 3) {
      const [x, y, width] = line.slice(i, i + 3), [toX, toY, toWidth] = i + 3 < line.length ? line.slice(i + 3, i + 6) : [x, y, width];
      const middle = (width + toWidth) / 2, t = Math.min(1, Math.max(0, (least - middle) / (least / 2)));
      g.strokeStyle = `rgb(${NEAR_LIMIT.map((c, k) => Math.round(c + (HALF_OF_IT[k] - c) * t)).join()})`;
      g.lineWidth = middle;
      g.beginPath();
      g.moveTo(x, y);
      g.lineTo(toX, toY);
      g.stroke();
    }
  }
}

// What comes or goes, filled where only one of the two forms is.
function paintPreview(g, paths, unit) {
  g.setLineDash([]);
  g.lineWidth = 0.8 * unit;
  for (const { path: d, isNew } of paths) {
    const path = new Path2D(d);
    g.fillStyle = `rgba(14, 110, 102, ${isNew ? 0.35 : 0.85})`;
    g.fill(path, "evenodd");
    g.strokeStyle = "#062F2B";
    g.stroke(path);
  }
}

function outline(g, path, width) {
  g.setLineDash([]);
  g.strokeStyle = "#2D6CDF";
  g.lineWidth = width;
  g.stroke(path);
}

function isSeen(item, seen) {
  const [minX, minY, maxX, maxY] = reachOf(item);
  return minX <= seen.maxX && maxX >= seen.minX && minY <= seen.maxY && maxY >= seen.minY;
}

function paintItem(g, item, unit) {
  const { paper, cutBack, kinds } = gathered(item);
  g.fillStyle = item.fill;
  g.fill(paper, "evenodd");
  if (cutBack) {
    g.globalAlpha = 0.3;
    g.setLineDash([]);
    g.lineWidth = unit;
    g.strokeStyle = scene.colours.score;
    g.stroke(cutBack);
    g.globalAlpha = 1;
  }
  for (const kind of kinds) {
    g.globalAlpha = kind.mark.includes("o") ? 0.3 : 1;
    if (kind.fill) {
      g.setLineDash([]);
      g.lineWidth = unit;
      g.strokeStyle = kind.colour;
      g.stroke(kind.fill);
    }
    strokes(g, kind.op, kind.colour, kind.path, unit, item.fill, kind.mark);
    g.globalAlpha = 1;
  }
}

// What has run stands out; what is still to come is faint.
function paintRunning(g, item, unit, progress) {
  const { paper } = gathered(item);
  const lines = shapes.get(item.shape);
  g.fillStyle = item.fill;
  g.globalAlpha = 0.55;
  g.fill(paper, "evenodd");
  item.lines.forEach((line, i) => {
    const runs = item.runs[i], done = runs && (runs[0] < progress.step || (runs[0] === progress.step && runs[1] < progress.line));
    g.globalAlpha = done ? 1 : 0.22;
    strokes(g, line.op, colourOf(line), pathOf(item, line, lines[i]), unit, item.fill, line.mark);
  });
  g.globalAlpha = 1;
}

function paintFrame(g, { kind, box: [x0, y0, x1, y1], fill, path }, scale) {
  const px = 1 / scale;
  g.setLineDash([]);
  if (kind === "mat") {
    g.fillStyle = "#E3DBCA";
    g.beginPath();
    g.roundRect(x0, y0, x1 - x0, y1 - y0, 4);
    g.fill();
    g.fillStyle = "#D3C9B5";
    if (scale > 0.5) for (let x = x0 + 5; x < x1; x += 10) for (let y = y0 + 5; y < y1; y += 10) g.fillRect(x, y, 1.4 * px, 1.4 * px);
  } else if (kind === "sheet") {
    const paper = new Path2D(path);
    if (!path) paper.rect(x0, y0, x1 - x0, y1 - y0);
    g.fillStyle = fill;
    g.fill(paper, "evenodd");
    g.fillStyle = "rgba(255,255,255,.38)";
    g.fill(paper, "evenodd");
    g.strokeStyle = "rgba(36,49,58,.45)";
    g.lineWidth = px;
    g.stroke(paper);
  } else if (kind === "border") {
    g.setLineDash([4 * px, 4 * px]);
    g.strokeStyle = "rgba(255,255,255,.95)";
    g.lineWidth = 1.2 * px;
    g.strokeRect(x0, y0, x1 - x0, y1 - y0);
  } else if (kind === "guide") {
    g.setLineDash([2 * px, 5 * px]);
    g.strokeStyle = "rgba(31,43,51,.45)";
    g.lineWidth = px;
    g.strokeRect(x0, y0, x1 - x0, y1 - y0);
  } else if (kind === "card") {
    g.fillStyle = "#FFFFFF";
    g.fillRect(x0, y0, x1 - x0, y1 - y0);
    g.strokeStyle = scene.colours.cut;
    g.lineWidth = 1.6 * px;
    g.strokeRect(x0, y0, x1 - x0, y1 - y0);
  } else {
    const line = new Path2D();
    line.moveTo(x0, y0);
    line.lineTo(x1, y1);
    const op = kind === "fold" ? "score" : "cut";
    strokes(g, op, scene.colours[op], line, px, "#FFFFFF");
  }
}
