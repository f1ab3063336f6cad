// @ts-check
// The picture on the picked piece, where the tray tells of it: its frame lies over the table, is dragged, and scaled by its corners.
import { act, mm } from "../actions.js";
import { element } from "./svg.js";

/** @typedef {import("./light-table.js").LightTable} LightTable */
/** @typedef {{ on: LineOnTable, item: string, corners: Point[], anchor: Point, at: Point, percent: number }} Print */

const REACH = 10; // px about a corner that take hold of it

/** Where the frame is while a hand moves it: by how much, and how many times larger. */
let moved = { dx: 0, dy: 0, times: 1 };

/**
 * The picture that the open tab is about.
 * @param {LightTable} table
 * @returns {Print | null}
 */
export function printOf(table) {
  const told = /** @type {HTMLElement | null} */ (document.querySelector("#tray [data-print]"));
  if (!told?.dataset.print || told.closest("[hidden]")) return null;
  const { piece, item, corners, anchor, at, percent } = JSON.parse(told.dataset.print);
  const on = table.sight.mapsOf(piece);
  return on && { on, item, corners, anchor, at, percent };
}

/** The corners where the hand has them. @param {Print} print */
const cornersOf = ({ corners, anchor }) =>
  corners.map((c) => ({
    x: anchor.x + (c.x - anchor.x) * moved.times + moved.dx,
    y: anchor.y + (c.y - anchor.y) * moved.times + moved.dy,
  }));

/**
 * @param {SVGSVGElement} svg
 * @param {import("./view.js").View} view
 * @param {Print} print
 */
export function drawPrint(svg, view, print) {
  const corners = cornersOf(print).map((c) => view.toScreen(...print.on.toTable(c)));
  element(svg, "polygon", { points: corners.map((c) => `${c.x},${c.y}`).join(" "), class: "print" });
  for (const c of corners) element(svg, "rect", { x: c.x - 5, y: c.y - 5, width: 10, height: 10, rx: 2, class: "print-handle" });
}

/**
 * The gesture that moves the picture under a place, or scales it by the corner there; null where neither is.
 * @param {LightTable} table
 * @param {TablePoint} from
 * @returns {Gesture | null}
 */
export function dragPrint(table, from) {
  const print = printOf(table);
  if (!print) return null;
  const corners = cornersOf(print);
  const isCorner = corners.some((c) => {
    const q = table.view.toScreen(...print.on.toTable(c));
    return Math.hypot(q.x - from.screen.x, q.y - from.screen.y) < REACH;
  });
  const begin = print.on.fromTable(from);
  if (!isCorner && !isWithin(corners, begin)) return null;
  const far = (/** @type {Point} */ p) => Math.hypot(p.x - print.anchor.x, p.y - print.anchor.y);
  return {
    move(at) {
      const here = print.on.fromTable(at);
      if (isCorner) moved.times = Math.max(0.02, far(here) / Math.max(far(begin), 1e-6));
      else moved = { dx: here.x - begin.x, dy: here.y - begin.y, times: 1 };
      table.redraw();
    },
    async end() {
      const { dx, dy, times } = moved;
      const values = isCorner ? { percent: (print.percent * times).toFixed(3) } : { x: mm(print.at.x + dx), y: mm(print.at.y + dy) };
      if (isCorner ? times !== 1 : dx || dy) await act("place-picture", { item: print.item, ...values });
      moved = { dx: 0, dy: 0, times: 1 };
      table.redraw();
    },
  };
}

/**
 * @param {Point[]} corners of a convex shape
 * @param {Point} p
 */
function isWithin(corners, p) {
  const sides = corners.map((a, i) => {
    const b = corners[(i + 1) % corners.length];
    return Math.sign((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x));
  });
  return sides.every((s) => s >= 0) || sides.every((s) => s <= 0);
}
