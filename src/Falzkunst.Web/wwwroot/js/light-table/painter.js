// @ts-check
// Paints scenes in a worker, so that panning never waits for forty thousand segments. A picture is wider than the screen by
// an overscan on each side; the page moves it about until the next one is there.
import { reachOf } from "./boxes.js";
import { Damage } from "./damage.js";
import { scaleOf } from "./maps.js";
import { strokes } from "./marks.js";
import { paintFrame } from "./paint-frames.js";
import { Items } from "./paint-items.js";
import { Prints } from "./paint-prints.js";
import { paintPreview, paintWidths } from "./paint-over.js";
import { complete } from "./scene.js";
import { copyOf } from "../picked-words.js";

const PAPER_OF_LOOSE = "#F1ECE2";
const [COPY_OUTLINE, HIGHLIGHT, PIECE_OUTLINE, LINE_OUTLINE] = [2.4, 4, 2.4, 3]; // px

/** @type {{ scene: Scene, items: Items } | null} */
let shown = null;
let canvas = new OffscreenCanvas(1, 1);
/** @type {Picked | null} */
let selected = null;
let picks = 0;
const damage = new Damage();
// A picture that has come is painted where it lies.
const prints = new Prints(() => {
  damage.forget();
  postMessage({ arrived: true });
});

onmessage = async (/** @type {MessageEvent<PainterMessage>} */ { data }) => {
  if (data.scene) {
    const scene = complete(data.scene, shown?.scene ?? null);
    if (data.page) prints.page = data.page;
    prints.keep(scene);
    shown = { scene, items: new Items(scene, shown?.items ?? null, prints) };
  }
  if (data.drawn) prints.put(data.drawn.key, data.drawn.bitmap);
  if (!data.paint || !shown) return;
  const began = performance.now();
  // What is picked may be thousands of lines, and is sent when it changes.
  if (data.paint.selected !== undefined) {
    selected = data.paint.selected;
    picks++;
    shown.items.forgetPicked();
  }
  paint(shown, data.paint);
  // A copy: what is painted stays, and is painted over where something changes.
  const picture = await createImageBitmap(canvas);
  /** @type {PainterAnswer} */
  const answer = { picture, took: performance.now() - began, number: data.paint.number };
  postMessage(answer, { transfer: [picture] });
};

/**
 * @param {{ scene: Scene, items: Items }} of
 * @param {PaintRequest} asked
 */
function paint(of, asked) {
  const { view, width, height, pixelRatio, layout } = asked;
  const [w, h] = [Math.round(width * pixelRatio), Math.round(height * pixelRatio)];
  if (canvas.width !== w || canvas.height !== h) {
    canvas = new OffscreenCanvas(w, h);
    damage.forget();
  }
  const g = /** @type {OffscreenCanvasRenderingContext2D} */ (canvas.getContext("2d"));
  const chosen = of.scene.layouts.find((l) => l.name === layout) ?? of.scene.layouts[0];
  const places = placesToPaint(of.scene, asked, chosen);
  g.save();
  g.setTransform(1, 0, 0, 1, 0, 0);
  if (places) clipTo(g, places, view, pixelRatio);
  g.clearRect(0, 0, canvas.width, canvas.height);
  paintAll(g, of, asked, chosen, places);
  g.restore();
}

// Along whole pixels, so that a place's rim is not painted twice over itself.
/**
 * @param {OffscreenCanvasRenderingContext2D} g
 * @param {Box[]} places
 * @param {ViewState} view
 * @param {number} pixelRatio
 */
function clipTo(g, places, view, pixelRatio) {
  const all = new Path2D();
  const s = view.scale * pixelRatio;
  const [x, y] = [view.x * pixelRatio, view.y * pixelRatio];
  for (const [x0, y0, x1, y1] of places) {
    const [left, top] = [Math.floor(x0 * s + x), Math.floor(y0 * s + y)];
    all.rect(left, top, Math.ceil(x1 * s + x) - left, Math.ceil(y1 * s + y) - top);
  }
  g.clip(all);
}

/**
 * The places of the table that differ from the picture before; null for all of it.
 * @param {Scene} scene
 * @param {PaintRequest} asked
 * @param {SceneLayout} chosen
 */
function placesToPaint(scene, { view, width, height, pixelRatio, highlight, progress, show }, chosen) {
  const { items, frames, loose, name, widths } = chosen;
  // Widths, previews and what has run lie over everything, and change with it.
  if (progress || show.preview || (show.widths && widths)) {
    damage.forget();
    return null;
  }
  const look = JSON.stringify([view, width, height, pixelRatio, name, frames, chosen.pages, show.what, loose, scene.operations]);
  const signs = items.map((item) =>
    [
      item.version,
      item.map,
      item.piece === highlight,
      selected?.copies?.includes(copyOf(item)),
      selected?.pieces.includes(item.piece) ? picks : 0,
    ].join(),
  );
  return damage.since(look, items, signs, view.scale);
}

/**
 * @param {OffscreenCanvasRenderingContext2D} g
 * @param {{ scene: Scene, items: Items }} of
 * @param {PaintRequest} asked
 * @param {SceneLayout} chosen
 * @param {Box[] | null} places
 */
function paintAll(g, { items }, { view, width, height, pixelRatio, highlight, progress, show }, chosen, places) {
  const s = view.scale * pixelRatio;
  const base = new DOMMatrix([s, 0, 0, s, view.x * pixelRatio, view.y * pixelRatio]);
  const [minX, minY] = [-view.x / view.scale, -view.y / view.scale];
  /** @type {Box} */
  const seen = [minX, minY, minX + width / view.scale, minY + height / view.scale];
  g.setTransform(base);
  for (const frame of chosen.frames) paintFrame(g, frame, view.scale, items.colours);
  for (const page of chosen.pages ?? []) prints.paintPage(g, page);
  for (const item of chosen.items) {
    if (!isSeen(item, seen) || (places && !places.some((p) => isSeen(item, p)))) continue;
    g.setTransform(base.multiply(new DOMMatrix(item.map)));
    const unit = 1 / (view.scale * scaleOf(item.map));
    if (progress && item.runs) items.paintRunning(g, item, unit, progress);
    else items.paint(g, item, unit, show.what, chosen.bare);
    paintPick(g, items, item, unit, highlight);
  }
  g.setTransform(base);
  if (show.preview && !show.before) paintPreview(g, show.preview, 1 / view.scale);
  else if (show.widths && chosen.widths) paintWidths(g, chosen.widths, chosen.least ?? 0);
  for (const line of chosen.loose)
    strokes(g, line.op, line.ink ?? items.colours(line.op), new Path2D(line.path), 1 / view.scale, PAPER_OF_LOOSE);
}

/**
 * @param {OffscreenCanvasRenderingContext2D} g
 * @param {Items} items
 * @param {SceneItem} item
 * @param {number} unit
 * @param {string | null} highlight
 */
function paintPick(g, items, item, unit, highlight) {
  const edge = items.edge(item);
  if (selected?.copies?.includes(copyOf(item))) outline(g, edge, COPY_OUTLINE * unit);
  if (item.piece === highlight) outline(g, edge, HIGHLIGHT * unit);
  if (!selected?.pieces.includes(item.piece)) return;
  if (selected.lines.length === 0) outline(g, edge, PIECE_OUTLINE * unit);
  else outline(g, items.picked(item, selected.lines), LINE_OUTLINE * unit);
}

/**
 * @param {OffscreenCanvasRenderingContext2D} g
 * @param {Path2D} path
 * @param {number} width
 */
function outline(g, path, width) {
  g.setLineDash([]);
  g.strokeStyle = "#2D6CDF";
  g.lineWidth = width;
  g.stroke(path);
}

/**
 * @param {SceneItem} item
 * @param {Box} seen
 */
function isSeen(item, seen) {
  const [minX, minY, maxX, maxY] = reachOf(item);
  return minX <= seen[2] && maxX >= seen[0] && minY <= seen[3] && maxY >= seen[1];
}
