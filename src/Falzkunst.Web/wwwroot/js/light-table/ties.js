// @ts-check
// Ties of a held cut, where the tray tells them: they are drawn over the table and dragged along their cut.
import { act, mm, sketch } from "../actions.js";
import { Latest } from "./latest.js";
import { element } from "./svg.js";

/** @typedef {import("./light-table.js").LightTable} LightTable */
/** @typedef {{ on: LineOnTable, places: Point[] }} Ties */

const REACH = 9; // pixels about a tie that take hold of it

/**
 * The ties that the open tab is about.
 * @param {LightTable} table
 * @returns {Ties | null}
 */
export function tiesOf(table) {
  const told = /** @type {HTMLElement | null} */ (document.querySelector("#tray [data-ties]"));
  if (!told?.dataset.places || told.closest("[hidden]")) return null;
  const on = table.sight.mapsOf(told.dataset.ties ?? "");
  const places = told.dataset.places.split(" ").map((p) => p.split(",").map(Number));
  return on && { on, places: places.map(([x, y]) => ({ x, y })) };
}

/**
 * @param {SVGSVGElement} svg
 * @param {import("./view.js").View} view
 * @param {Ties} ties
 */
export function drawTies(svg, view, { on, places }) {
  for (const place of places) {
    const { x, y } = view.toScreen(...on.toTable(place));
    element(svg, "circle", { cx: x, cy: y, r: 6, class: "tie" });
  }
}

/**
 * The gesture that moves the tie under a place; null where none is.
 * @param {LightTable} table
 * @param {TablePoint} from
 * @returns {Gesture | null}
 */
export function dragTie(table, from) {
  const ties = tiesOf(table);
  if (!ties) return null;
  const { on, places } = ties;
  const far = places.map((p) => {
    const q = table.view.toScreen(...on.toTable(p));
    return Math.hypot(q.x - from.screen.x, q.y - from.screen.y);
  });
  const tie = far.indexOf(Math.min(...far));
  if (tie < 0 || far[tie] > REACH) return null;
  const asking = new Latest((/** @type {Record<string, unknown>} */ values) => sketch("tie-to", values));
  /** @type {Record<string, unknown> | null} */
  let last = null;
  return {
    move(at) {
      const [x, y] = on.toCard(on.fromTable(at));
      last = { tie, x: mm(x), y: mm(y) };
      asking.ask(last, ({ d }) => table.ghost.preview(d, on.cardMap));
    },
    end() {
      asking.end();
      return last ? act("tie-to", last) : undefined;
    },
  };
}

// Another tray tells of other ties.
document.addEventListener("htmx:after:swap", () => /** @type {LightTable | null} */ (document.querySelector("light-table"))?.redraw());
