// By hand beside the table: shapes to draw, nodes, rows of the ledger dragged to another layer, stocks dragged onto pieces.
import { act } from "./actions.js";

const table = () => document.querySelector("light-table");

document.addEventListener("click", event => {
  const draw = event.target.closest("[data-draw]"), nodes = event.target.closest("[data-nodes]"), show = event.target.closest("[data-highlight]");
  if (draw) table().draw(table().drawing === draw.dataset.draw ? null : draw.dataset.draw);
  if (nodes) table().showNodes(!table().nodesShown);
  if (show) table().highlight(show.dataset.highlight);
});

let dragged = null;
document.addEventListener("dragstart", event => {
  const row = event.target.closest?.("[data-piece]"), stock = event.target.closest?.("[data-stock]");
  dragged = row ? { piece: row.dataset.piece } : stock ? { stock: stock.dataset.stock } : null;
  if (dragged) event.dataTransfer.setData("text/plain", dragged.piece ?? dragged.stock);
});
document.addEventListener("dragover", event => {
  const row = dragged && event.target.closest?.("[data-piece]"), chip = dragged?.piece && event.target.closest?.("[data-stock]");
  mark(row ?? chip);
  if (row || chip || (dragged?.stock && event.target.closest?.("light-table"))) event.preventDefault();
});
document.addEventListener("dragend", () => {
  dragged = null;
  mark(null);
});
document.addEventListener("drop", event => {
  if (!dragged) return;
  const row = event.target.closest?.("[data-piece]"), chip = event.target.closest?.("[data-stock]");
  const { piece, stock } = dragged;
  if (stock && row) act("stock", { stock, "act-on": row.dataset.piece });
  else if (stock && event.target.closest?.("light-table")) {
    const r = table().getBoundingClientRect();
    const item = table().itemAt(table().view.toTable(event.clientX - r.left, event.clientY - r.top));
    if (item) act("stock", { stock, "act-on": item.piece });
  } else if (piece && chip) act("stock", { stock: chip.dataset.stock, "act-on": piece });
  else if (piece && row && row.dataset.piece !== piece) act("layer", { layer: row.dataset.layer, "act-on": piece });
  else return;
  event.preventDefault();
});

function mark(element) {
  for (const e of document.querySelectorAll(".is-target")) if (e !== element) e.classList.remove("is-target");
  element?.classList.add("is-target");
}

// What was done by hand and refused is shown where it still lies.
document.addEventListener("htmx:after:request", event => {
  if (event.detail.ctx?.sourceElement?.id === "doer" && event.detail.ctx.response?.status >= 400) table()?.ghost.clear();
});

// A length with arithmetic or another unit says at once what it comes to.
let asking = 0;
document.addEventListener("input", event => {
  const field = event.target;
  if (!field.matches("[data-length]")) return;
  clearTimeout(asking);
  const isPlain = /^\s*[\d.,]*\s*(mm)?\s*$/.test(field.value);
  if (isPlain) return echo(field, "");
  asking = setTimeout(async () => {
    const answer = await fetch(`?handler=Understand&text=${encodeURIComponent(field.value)}`);
    if (answer.ok) echo(field, await answer.json());
  }, 180);
});
document.addEventListener("change", event => { if (event.target.matches("[data-length]")) echo(event.target, ""); });

function echo(field, words) {
  let bubble = document.getElementById("echo");
  if (!bubble) {
    bubble = document.createElement("output");
    bubble.id = "echo";
    document.body.append(bubble);
  }
  bubble.textContent = words;
  bubble.hidden = !words;
  const r = field.getBoundingClientRect();
  bubble.style.left = `${Math.min(r.left, innerWidth - 200)}px`;
  bubble.style.top = `${r.top - 30}px`;
}
