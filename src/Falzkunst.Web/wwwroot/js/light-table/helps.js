// Helps that come and go with what the hand does: grid, nodes, what an edge holds on to.
import { element } from "./svg.js";
import { handlesOf, nodesOf, parse } from "./nodes.js";

const MOST_NODES = 800;

export function drawGrid(svg, view, width, height, step) {
  if (step * view.scale < 5) return;
  const from = view.toTable(0, 0), to = view.toTable(width, height);
  let d = "";
  for (let x = Math.ceil(from.x / step) * step; x < to.x; x += step) d += `M${view.toScreen(x, 0).x} 0V${height}`;
  for (let y = Math.ceil(from.y / step) * step; y < to.y; y += step) d += `M0 ${view.toScreen(0, y).y}H${width}`;
  element(svg, "path", { d, class: "grid" });
}

export function drawNodes(svg, view, line, chosen) {
  const path = parse(line.d), place = p => view.toScreen(...line.toTable(p));
  const nodes = nodesOf(path);
  if (nodes.length > MOST_NODES) return;
  for (const h of handlesOf(path)) {
    const a = place(h.of), b = place(h.at);
    element(svg, "path", { d: `M${a.x} ${a.y}L${b.x} ${b.y}`, class: "handle-line" });
    element(svg, "circle", { cx: b.x, cy: b.y, r: 3, class: "node-handle" });
  }
  nodes.forEach((p, i) => {
    const { x, y } = place(p);
    element(svg, "circle", { cx: x, cy: y, r: i === chosen ? 6 : 4.5, class: i === chosen ? "node is-chosen" : "node" });
  });
}
