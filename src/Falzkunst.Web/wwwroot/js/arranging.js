// @ts-check
// By hand beside the table: shapes to draw, nodes, rows of the ledger dragged to another layer, stocks dragged onto pieces.
import { act } from "./actions.js";
import { about } from "./dom.js";
import { movePicked } from "./light-table/tools/place.js";
import { table } from "./picked.js";

document.addEventListener("click", (event) => {
  const t = table();
  if (!t) return;
  const shape = /** @type {import("./light-table/tools/draw.js").Shape | undefined} */ (about(event, "[data-draw]")?.dataset.draw);
  const turn = about(event, "[data-turn]")?.dataset.turn;
  const highlighted = about(event, "[data-highlight]")?.dataset.highlight;
  if (shape) t.draw(t.drawing === shape ? null : shape);
  if (about(event, "[data-nodes]")) t.nodes.show(!t.nodes.isShown);
  if (turn) movePicked(t, Number(turn), { x: 0, y: 0 });
  if (highlighted) t.highlight(highlighted);
});

/** @type {{ piece?: string, stock?: string } | null} */
let dragged = null;
document.addEventListener("dragstart", (event) => {
  const piece = about(event, "[data-piece]")?.dataset.piece;
  const stock = about(event, "[data-stock]")?.dataset.stock;
  dragged = piece ? { piece } : stock ? { stock } : null;
  if (dragged) event.dataTransfer?.setData("text/plain", piece ?? stock ?? "");
});
document.addEventListener("dragover", (event) => {
  if (!dragged) return;
  const target = about(event, "[data-piece]") ?? (dragged.piece ? about(event, "[data-stock]") : null);
  mark(target);
  if (target || (dragged.stock && about(event, "light-table"))) event.preventDefault();
});
document.addEventListener("dragend", () => {
  dragged = null;
  mark(null);
});
document.addEventListener("drop", (event) => {
  if (dragged && dropped(event, dragged)) event.preventDefault();
});

/**
 * @param {DragEvent} event
 * @param {{ piece?: string, stock?: string }} what
 * @returns {boolean} it fell on something that takes it
 */
function dropped(event, { piece, stock }) {
  const row = about(event, "[data-piece]")?.dataset;
  const chip = about(event, "[data-stock]")?.dataset;
  if (stock && row) act("stock", { stock, "act-on": row.piece });
  else if (stock && about(event, "light-table")) onTable(event, stock);
  else if (piece && chip) act("stock", { stock: chip.stock, "act-on": piece });
  else if (piece && row && row.piece !== piece) act("layer", { layer: row.layer, "act-on": piece });
  else return false;
  return true;
}

/**
 * A stock falls on the piece that lies there.
 * @param {DragEvent} event
 * @param {string} stock
 */
function onTable(event, stock) {
  const t = table();
  if (!t) return;
  const r = t.getBoundingClientRect();
  const item = t.sight.itemAt(t.view.toTable(event.clientX - r.left, event.clientY - r.top));
  if (item) act("stock", { stock, "act-on": item.piece });
}

/** @param {Element | null} element */
function mark(element) {
  for (const e of document.querySelectorAll(".is-target")) if (e !== element) e.classList.remove("is-target");
  element?.classList.add("is-target");
}

// What was done by hand and refused is shown where it still lies.
document.addEventListener("htmx:after:request", (event) => {
  const { sourceElement, response } = event.detail.ctx ?? {};
  if (sourceElement?.id === "doer" && response && response.status >= 400) table()?.ghost.clear();
});
