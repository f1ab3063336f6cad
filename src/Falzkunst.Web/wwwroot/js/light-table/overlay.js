// What lies over the picture in sharp vectors: scale bar, labels, the measure of what is selected, pins, the tool.
import { boxOf } from "./boxes.js";
import { element } from "./svg.js";
import { PIXELS_PER_MM } from "./view.js";
import { PAD, handlesOf } from "./handles.js";
import { boxOfItems, pickedOf, turnHandle } from "./placing.js";
import { drawNodes, drawGrid } from "./helps.js";
import { INCH, number, stepFor } from "./rulers.js";


/** Draws everything anew; a few dozen elements. */
export function draw(svg, { view, width, height, layout, selected, inches, head, table, place, grid, nodes, chosenNode }) {
  svg.replaceChildren();
  if (grid) drawGrid(svg, view, width, height, grid);
  frames(svg, view, layout);
  if (layout.byHand) byHand(svg, view, width, height, layout);
  else if (selected) measure(svg, view, layout, selected, table);
  pins(svg, view, width, height, layout, place);
  if (nodes) drawNodes(svg, view, nodes, chosenNode);
  if (head) tool(svg, view, head);
  scaleBar(svg, view, width, height, inches);
}

function frames(svg, view, layout) {
  for (const frame of layout.frames) {
    if (!frame.label) continue;
    const at = view.toScreen(frame.box[0], frame.box[1]), end = view.toScreen(frame.box[2], frame.box[1]);
    const room = end.x - at.x;
    if (room < 60) continue;
    element(svg, "text", { x: at.x + 2, y: at.y - 8, class: "frame-label" }, frame.label);
    if (frame.note && room > 310) element(svg, "text", { x: end.x - 2, y: at.y - 8, class: "frame-note", "text-anchor": "end" }, frame.note);
  }
}

function measure(svg, view, layout, selected, table) {
  const items = layout.items.filter(i => selected.pieces.includes(i.piece));
  if (items.length === 0) return;
  const one = items.length === 1 && selected.lines.length === 0 ? items[0] : null;
  const box = one ? boxOf(one) : table.boxOfPick(selected), [minX, minY, maxX, maxY] = box;
  const { a, b } = pickedBox(svg, view, box), y = b.y + PAD + 10, x = b.x + PAD + 10;
  element(svg, "path", { d: `M${a.x} ${y}H${b.x}M${a.x} ${y - 4}v8M${b.x} ${y - 4}v8M${x} ${a.y}V${b.y}M${x - 4} ${a.y}h8M${x - 4} ${b.y}h8`, ...PICKED });
  element(svg, "text", { x: (a.x + b.x) / 2, y: y + 13, class: "measure", "text-anchor": "middle" }, one ? one.size.widthText : table.length(maxX - minX));
  element(svg, "text", { x: x + 7, y: (a.y + b.y) / 2 + 4, class: "measure" }, one ? one.size.heightText : table.length(maxY - minY));
  if (!table.canArrange || items.some(i => i.locked)) return;
  for (const h of handlesOf(view, box)) handle(svg, view, box, h);
}

// What is pinned on its sheet, and the box and handle of what is picked.
function byHand(svg, view, width, height, layout) {
  let drawn = 0;
  for (const item of layout.items) {
    if (!item.pinned) continue;
    const [minX, minY, maxX, maxY] = boxOf(item), p = view.toScreen((minX + maxX) / 2, (minY + maxY) / 2);
    if (p.x < 0 || p.y < 0 || p.x > width || p.y > height || ++drawn > MOST_PINS) continue;
    element(svg, "circle", { cx: p.x, cy: p.y, r: 5, class: "stays" });
    element(svg, "circle", { cx: p.x, cy: p.y, r: 1.6, class: "stays-point" });
  }
  const items = pickedOf(layout);
  if (items.length === 0) return;
  const box = boxOfItems(items);
  pickedBox(svg, view, box);
  handle(svg, view, box, turnHandle(view, items));
}

const PICKED = { stroke: "#2D6CDF", "stroke-width": 1, fill: "none" };

/** The dashed box round what is picked; its corners on screen. */
function pickedBox(svg, view, [minX, minY, maxX, maxY]) {
  const a = view.toScreen(minX, minY), b = view.toScreen(maxX, maxY);
  element(svg, "rect", { x: a.x - PAD, y: a.y - PAD, width: b.x - a.x + 2 * PAD, height: b.y - a.y + 2 * PAD, ...PICKED, "stroke-dasharray": "4 3" });
  return { a, b };
}

function handle(svg, view, box, h) {
  if (h.kind !== "turn") return element(svg, "rect", { x: h.x - 4, y: h.y - 4, width: 8, height: 8, rx: 2, class: "handle" });
  element(svg, "path", { d: `M${h.x} ${h.y}V${view.toScreen(box[0], box[1]).y - PAD}`, ...PICKED });
  return element(svg, "circle", { cx: h.x, cy: h.y, r: 5, class: "handle" });
}

// More pins than this at once say no more, and each costs time at every frame; nearer, all of them are seen.
const MOST_PINS = 150;

/** A pin stands above its place. */
export const isOnPin = (place, at) => Math.hypot(place.x - at.x, place.y - 12 - at.y) < 12;

function pins(svg, view, width, height, layout, place) {
  const looked = layout.pins.find(p => p.number === place);
  drawPins(svg, view, width, height, looked ? [...layout.pins.filter(p => p !== looked), looked] : layout.pins);
  if (looked) card(svg, view.toScreen(looked.x, looked.y), width, looked);
}

// What is known of the place that is looked at, beside its pin.
function card(svg, at, width, pin) {
  element(svg, "circle", { cx: at.x, cy: at.y - 12, r: 12.5, fill: "none", stroke: "#2D6CDF", "stroke-width": 2 });
  const paper = element(svg, "rect", { height: 46, rx: 6, class: "place-card" });
  const words = [[pin.message, `place-width is-${pin.severity}`], [pin.note, "place-note"]].map(([text, kind]) => element(svg, "text", { class: kind }, text));
  const wide = 24 + Math.max(...words.map(w => w.getComputedTextLength()));
  const x = at.x + 22 + wide > width ? at.x - 22 - wide : at.x + 22, y = at.y - 36;
  paper.setAttribute("x", x);
  paper.setAttribute("y", y);
  paper.setAttribute("width", wide);
  words.forEach((w, i) => {
    w.setAttribute("x", x + 12);
    w.setAttribute("y", y + 19 + 17 * i);
  });
}

function drawPins(svg, view, width, height, pins) {
  let drawn = 0;
  for (const pin of pins) {
    const p = view.toScreen(pin.x, pin.y);
    if (p.x < 0 || p.y < 0 || p.x > width || p.y > height || ++drawn > MOST_PINS) continue;
    element(svg, "circle", { cx: p.x, cy: p.y - 12, r: 9, fill: pin.severity === "major" ? "#B3361E" : "#855B00" });
    element(svg, "path", { d: `M${p.x - 3} ${p.y - 5}L${p.x} ${p.y}L${p.x + 3} ${p.y - 5}Z`, fill: pin.severity === "major" ? "#B3361E" : "#855B00" });
    element(svg, "text", { x: p.x, y: p.y - 8, class: "pin-number" }, pin.number);
  }
}

function tool(svg, view, head) {
  const p = view.toScreen(head.x, head.y);
  element(svg, "circle", { cx: p.x, cy: p.y, r: 7, fill: "#F0B44A", stroke: "#173F45", "stroke-width": 2.5 });
}

function scaleBar(svg, view, width, height, inches) {
  const unit = inches ? INCH : 1, length = stepFor(view, unit, 70), pixels = length * unit * view.scale;
  const right = width - 76, y = height - 16;
  element(svg, "path", { d: `M${right - pixels} ${y - 3}v6M${right - pixels} ${y}H${right}M${right} ${y - 3}v6`, stroke: "#556169", "stroke-width": 1.2, fill: "none" });
  element(svg, "text", { x: right - pixels / 2, y: y - 5, "text-anchor": "middle", class: "frame-note" }, `${number(length)} ${inches ? "in" : "mm"}`);
  element(svg, "text", { x: width - 16, y: y + 4, "text-anchor": "end", class: "frame-note" }, `${Math.round(view.scale / PIXELS_PER_MM * 100)} %`);
}
