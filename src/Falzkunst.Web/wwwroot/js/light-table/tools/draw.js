// @ts-check
import { act, mm, sketch } from "../../actions.js";
import { frame } from "../hand-maths.js";
import { Latest } from "../latest.js";

/** @typedef {import("../light-table.js").LightTable} LightTable */
/** @typedef {"rectangle" | "ellipse" | "polygon" | "star" | "arch" | "slot" | "line" | "curve"} Shape */

const LEAST_STROKE = 0.2; // mm; less is a touch
const LEAST_SIDE = 0.1; // mm

/** @type {Map6} */
const CARD = [1, 0, 0, 1, 0, 0];

/**
 * Handles of a curve from a to b that bulges to its left by a quarter of its length.
 * @param {Point} a
 * @param {Point} b
 */
function bulge(a, b) {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  return [
    { x: a.x + dx / 4 + dy / 3, y: a.y + dy / 4 - dx / 3 },
    { x: a.x + dx * 0.75 + dy / 3, y: a.y + dy * 0.75 - dx / 3 },
  ];
}

/** @returns {Record<string, unknown>} what the fields beside the shapes say of one */
function fields(/** @type {Shape} */ shape) {
  const field = (/** @type {string} */ id) =>
    /** @type {HTMLInputElement | null} */ (document.getElementById(id))?.value.replaceAll(" ", "") ?? "";
  if (shape === "rectangle" && parseFloat(field("draw-radius")) > 0) return { radius: field("draw-radius") };
  if (shape === "polygon") return { corners: field("draw-corners") || 6 };
  if (shape === "star") return { points: field("draw-corners") || 5 };
  return {};
}

/**
 * The values of the action that draws what was drawn; null for a touch without a stroke.
 * @param {Shape} shape
 * @param {Point} a
 * @param {Point} b
 * @param {boolean} held
 * @returns {Record<string, unknown> | null}
 */
export function valuesOf(shape, a, b, held) {
  if (Math.hypot(b.x - a.x, b.y - a.y) < LEAST_STROKE) return null;
  const ends = { fromX: mm(a.x), fromY: mm(a.y), toX: mm(b.x), toY: mm(b.y) };
  if (shape === "line") return { ...ends, held };
  if (shape === "curve") {
    const [one, two] = bulge(a, b);
    return { ...ends, firstX: mm(one.x), firstY: mm(one.y), secondX: mm(two.x), secondY: mm(two.y) };
  }
  const f = frame(a, b, held);
  if (f.width < LEAST_SIDE || f.height < LEAST_SIDE) return null;
  return { x: mm(f.x), y: mm(f.y), width: mm(f.width), height: mm(f.height), ...fields(shape) };
}

/**
 * Draws a shape where it will lie on the card; the server says how it runs.
 * @param {LightTable} table
 * @param {Shape} shape
 * @param {Point} from
 * @returns {Gesture}
 */
export function draw(table, shape, from) {
  const onGrid = (/** @type {Point} */ p) =>
    table.grid ? { x: Math.round(p.x / table.grid) * table.grid, y: Math.round(p.y / table.grid) * table.grid } : p;
  const asking = new Latest((values) => sketch(`draw-${shape}`, values));
  const begun = onGrid(from);
  let to = begun;
  let held = false;
  return {
    move(at, event) {
      [to, held] = [onGrid(at), event.shiftKey];
      const values = valuesOf(shape, begun, to, held);
      if (values) asking.ask(values, ({ d }) => table.ghost.preview(d, CARD));
      table.hint([], `${table.length(Math.abs(to.x - begun.x))} × ${table.length(Math.abs(to.y - begun.y))}`);
    },
    end() {
      asking.end();
      const values = valuesOf(shape, begun, to, held);
      table.draw(null);
      if (!values) return table.ghost.clear();
      const operation = /** @type {HTMLSelectElement | null} */ (document.getElementById("draw-for"))?.value || "cut";
      const on = /** @type {HTMLSelectElement | null} */ (document.getElementById("draw-on"))?.value;
      return act(`draw-${shape}`, { ...values, operation, ...(on === "on" ? { onPiece: true } : {}) });
    },
  };
}
