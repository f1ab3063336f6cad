// @ts-check
// What lies over the picture in sharp vectors: scale bar, labels, the measure of what is picked, pins, the tool.
import { boxOf } from "./boxes.js";
import { boxOfItems, pickedOf, turnHandle } from "./copies.js";
import { PAD, handlesOf } from "./handles.js";
import { drawGrid, drawNodes } from "./helps.js";
import { drawPins } from "./pins.js";
import { INCH, number, stepFor } from "./rulers.js";
import { element } from "./svg.js";
import { drawPrint } from "./prints.js";
import { drawTies } from "./ties.js";
import { PIXELS_PER_MM } from "./view.js";

/**
 * @typedef {object} OverlayState
 * @property {import("./view.js").View} view
 * @property {number} width
 * @property {number} height
 * @property {SceneLayout} layout
 * @property {Picked | null} selected
 * @property {boolean} inches
 * @property {Point | null} head where a tool stands
 * @property {(mm: number) => string} length in words
 * @property {boolean} hasHandles what is picked can be sized and turned
 * @property {(key: Picked) => Box} boxOfPick
 * @property {number | null} place number of the pin that is looked at
 * @property {number} grid mm
 * @property {import("./helps.js").DrawnNodes | null} nodes
 * @property {import("./ties.js").Ties | null} ties
 * @property {import("./prints.js").Print | null} print
 * @property {{ d: string, map: Map6 }[]} touched lines that are to run again
 */

const PICKED = { stroke: "#2D6CDF", "stroke-width": 1, fill: "none" };
const LABEL_ROOM = 60; // px of a frame's edge, below which it has no label
const NOTE_ROOM = 310; // px, below which it has no note
const SCALE_ROOM = 70; // px
const MOST_STAYS = 150; // pinned copies that are marked; nearer, all of them are seen

/**
 * Draws everything anew; a few dozen elements.
 * @param {SVGSVGElement} svg
 * @param {OverlayState} state
 */
export function draw(svg, state) {
  svg.replaceChildren();
  const { view, width, height, layout } = state;
  if (state.grid) drawGrid(svg, view, width, height, state.grid);
  frames(svg, state);
  if (layout.byHand) byHand(svg, state);
  else if (state.selected) measure(svg, state, state.selected);
  drawPins(svg, state);
  for (const line of state.touched) touched(svg, view, line);
  if (state.print) drawPrint(svg, view, state.print);
  if (state.ties) drawTies(svg, view, state.ties);
  if (state.nodes) drawNodes(svg, view, state.nodes);
  if (state.head) tool(svg, state, state.head);
  scaleBar(svg, state);
}

/**
 * @param {SVGSVGElement} svg
 * @param {OverlayState} state
 */
function frames(svg, { view, layout }) {
  for (const frame of layout.frames) {
    if (!frame.label) continue;
    if (frame.kind === "zone") {
      const [a, b] = [view.toScreen(frame.box[0], frame.box[3]), view.toScreen(frame.box[2], frame.box[3])];
      if (b.x - a.x > LABEL_ROOM)
        element(svg, "text", { x: (a.x + b.x) / 2, y: a.y - 6, class: "frame-note", "text-anchor": "middle" }, frame.label);
      continue;
    }
    if (frame.kind === "foil") {
      // Below its area, where it covers no piece that begins there.
      const below = view.toScreen(frame.box[0], frame.box[3]);
      element(svg, "text", { x: below.x + 2, y: below.y + 13, class: "frame-note" }, frame.label);
      continue;
    }
    const at = view.toScreen(frame.box[0], frame.box[1]);
    const end = view.toScreen(frame.box[2], frame.box[1]);
    const room = end.x - at.x;
    if (room < LABEL_ROOM) continue;
    element(svg, "text", { x: at.x + 2, y: at.y - 8, class: "frame-label" }, frame.label);
    if (frame.note && room > NOTE_ROOM)
      element(svg, "text", { x: end.x - 2, y: at.y - 8, class: "frame-note", "text-anchor": "end" }, frame.note);
  }
}

/**
 * @param {SVGSVGElement} svg
 * @param {OverlayState} state
 * @param {Picked} selected
 */
function measure(svg, { view, layout, length, hasHandles, boxOfPick }, selected) {
  const items = layout.items.filter((i) => selected.pieces.includes(i.piece));
  if (items.length === 0) return;
  const one = items.length === 1 && selected.lines.length === 0 ? items[0] : null;
  const box = one ? boxOf(one) : boxOfPick(selected);
  const { a, b } = pickedBox(svg, view, box);
  const [x, y] = [b.x + PAD + 10, b.y + PAD + 10];
  const d = `M${a.x} ${y}H${b.x}M${a.x} ${y - 4}v8M${b.x} ${y - 4}v8M${x} ${a.y}V${b.y}M${x - 4} ${a.y}h8M${x - 4} ${b.y}h8`;
  element(svg, "path", { d, ...PICKED });
  const [wide, high] = one ? [one.size.widthText, one.size.heightText] : [length(box[2] - box[0]), length(box[3] - box[1])];
  element(svg, "text", { x: (a.x + b.x) / 2, y: y + 13, class: "measure", "text-anchor": "middle" }, wide);
  element(svg, "text", { x: x + 7, y: (a.y + b.y) / 2 + 4, class: "measure" }, high);
  if (!hasHandles || items.some((i) => i.locked)) return;
  for (const h of handlesOf(view, box)) handle(svg, view, box, h);
}

// What is pinned on its sheet, and the box and handle of what is picked.
/**
 * @param {SVGSVGElement} svg
 * @param {OverlayState} state
 */
function byHand(svg, { view, width, height, layout }) {
  let drawn = 0;
  for (const item of layout.items) {
    if (!item.pinned) continue;
    const [minX, minY, maxX, maxY] = boxOf(item);
    const p = view.toScreen((minX + maxX) / 2, (minY + maxY) / 2);
    if (p.x < 0 || p.y < 0 || p.x > width || p.y > height || ++drawn > MOST_STAYS) continue;
    element(svg, "circle", { cx: p.x, cy: p.y, r: 5, class: "stays" });
    element(svg, "circle", { cx: p.x, cy: p.y, r: 1.6, class: "stays-point" });
  }
  const items = pickedOf(layout);
  if (items.length === 0) return;
  const box = boxOfItems(items);
  pickedBox(svg, view, box);
  handle(svg, view, box, turnHandle(view, items));
}

/**
 * The dashed box round what is picked; its corners on screen.
 * @param {SVGSVGElement} svg
 * @param {import("./view.js").View} view
 * @param {Box} box
 */
function pickedBox(svg, view, [minX, minY, maxX, maxY]) {
  const a = view.toScreen(minX, minY);
  const b = view.toScreen(maxX, maxY);
  const sides = { x: a.x - PAD, y: a.y - PAD, width: b.x - a.x + 2 * PAD, height: b.y - a.y + 2 * PAD };
  element(svg, "rect", { ...sides, ...PICKED, "stroke-dasharray": "4 3" });
  return { a, b };
}

/**
 * @param {SVGSVGElement} svg
 * @param {import("./view.js").View} view
 * @param {Box} box
 * @param {Handle} h
 */
function handle(svg, view, box, h) {
  if (h.kind !== "turn") {
    element(svg, "rect", { x: h.x - 4, y: h.y - 4, width: 8, height: 8, rx: 2, class: "handle" });
    return;
  }
  element(svg, "path", { d: `M${h.x} ${h.y}V${view.toScreen(box[0], box[1]).y - PAD}`, ...PICKED });
  element(svg, "circle", { cx: h.x, cy: h.y, r: 5, class: "handle" });
}

/**
 * @param {SVGSVGElement} svg
 * @param {import("./view.js").View} view
 * @param {{ d: string, map: Map6 }} line
 */
function touched(svg, view, { d, map }) {
  const [o, x, y] = [view.toScreen(0, 0), view.toScreen(1, 0), view.toScreen(0, 1)];
  const table = `matrix(${x.x - o.x} ${x.y - o.y} ${y.x - o.x} ${y.y - o.y} ${o.x} ${o.y})`;
  element(svg, "path", { d, class: "touched", transform: `${table} matrix(${map.join(" ")})` });
}

/**
 * @param {SVGSVGElement} svg
 * @param {OverlayState} state
 * @param {Point} head
 */
function tool(svg, { view }, head) {
  const p = view.toScreen(head.x, head.y);
  element(svg, "circle", { cx: p.x, cy: p.y, r: 7, fill: "#F0B44A", stroke: "#173F45", "stroke-width": 2.5 });
}

/**
 * @param {SVGSVGElement} svg
 * @param {OverlayState} state
 */
function scaleBar(svg, { view, width, height, inches }) {
  const unit = inches ? INCH : 1;
  const length = stepFor(view, unit, SCALE_ROOM);
  const pixels = length * unit * view.scale;
  const [right, y] = [width - 76, height - 16];
  const d = `M${right - pixels} ${y - 3}v6M${right - pixels} ${y}H${right}M${right} ${y - 3}v6`;
  element(svg, "path", { d, stroke: "#556169", "stroke-width": 1.2, fill: "none" });
  const said = `${number(length)} ${inches ? "in" : "mm"}`;
  element(svg, "text", { x: right - pixels / 2, y: y - 5, "text-anchor": "middle", class: "frame-note" }, said);
  const zoom = `${Math.round((view.scale / PIXELS_PER_MM) * 100)} %`;
  element(svg, "text", { x: width - 16, y: y + 4, "text-anchor": "end", class: "frame-note" }, zoom);
}
