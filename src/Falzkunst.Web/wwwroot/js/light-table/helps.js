// @ts-check
// Helps that come and go with what the hand does: grid and nodes.
import { element } from "./svg.js";

/** @typedef {import("./view.js").View} View */
/** @typedef {LineNodes & { line: LineOnTable, chosen: number | null }} DrawnNodes */

const MOST_NODES = 800;
const FINEST_GRID = 5; // px

/**
 * @param {SVGSVGElement} svg
 * @param {View} view
 * @param {number} width
 * @param {number} height
 * @param {number} step mm
 */
export function drawGrid(svg, view, width, height, step) {
  if (step * view.scale < FINEST_GRID) return;
  const from = view.toTable(0, 0);
  const to = view.toTable(width, height);
  let d = "";
  for (let x = Math.ceil(from.x / step) * step; x < to.x; x += step) d += `M${view.toScreen(x, 0).x} 0V${height}`;
  for (let y = Math.ceil(from.y / step) * step; y < to.y; y += step) d += `M0 ${view.toScreen(0, y).y}H${width}`;
  element(svg, "path", { d, class: "grid" });
}

/**
 * @param {SVGSVGElement} svg
 * @param {View} view
 * @param {DrawnNodes} drawn
 */
export function drawNodes(svg, view, { line, nodes, handles, chosen }) {
  if (nodes.length > MOST_NODES) return;
  const place = (/** @type {Point} */ p) => view.toScreen(...line.toTable(p));
  for (const h of handles) {
    const [a, b] = [place(h.node), place(h.at)];
    element(svg, "path", { d: `M${a.x} ${a.y}L${b.x} ${b.y}`, class: "handle-line" });
    element(svg, "circle", { cx: b.x, cy: b.y, r: 3, class: "node-handle" });
  }
  nodes.forEach((p, i) => {
    const { x, y } = place(p);
    element(svg, "circle", { cx: x, cy: y, r: i === chosen ? 6 : 4.5, class: i === chosen ? "node is-chosen" : "node" });
  });
}
