// @ts-check
// The drawer: its sheets over a station, its list, and rests that are drawn corner by corner.
import { about, all, dialog, field } from "./dom.js";

const STEP = 5; // mm that corners hold on to
const CLOSE = 8; // mm from the first corner that ends the round

let isChanged = false;
document.addEventListener("drawer-changed", () => {
  isChanged = true;
});

document.addEventListener("click", (event) => {
  const opener = about(event, "[data-drawer]");
  if (opener?.dataset.drawer) open(opener.dataset.drawer);
  if (about(event, "[data-closes-drawer]")) dialog("drawer-dialog")?.close();
});

/** @param {string} what such as "stocks/kraft-240" */
async function open(what) {
  const over = dialog("drawer-dialog");
  if (!over) return;
  isChanged = false;
  await htmx.ajax("GET", `/drawer/${what}?over=true`, { source: "#drawer-dialog", target: "#drawer-body", swap: "innerHTML" });
  over.showModal();
}

// The station shows what the drawer says now.
document.addEventListener(
  "close",
  (event) => {
    if (event.target === dialog("drawer-dialog") && isChanged) location.reload();
  },
  true,
);

// A list shows what has all words that were typed.
document.addEventListener("input", (event) => {
  const find = event.target;
  if (!(find instanceof HTMLInputElement) || !find.dataset.finds) return;
  const words = find.value.toLowerCase().split(/\s+/).filter(Boolean);
  for (const row of all(`${find.dataset.finds} > li`)) {
    const text = (row.dataset.words ?? "").toLowerCase();
    row.hidden = !words.every((w) => text.includes(w));
  }
});

// Fields of a size of one's own, and of the shape that was chosen.
document.addEventListener("change", (event) => {
  const select = event.target;
  if (!(select instanceof HTMLSelectElement)) return;
  const form = select.form;
  if (!form) return;
  if (select.matches("[data-own-size]")) for (const own of all(".own-size", form)) own.hidden = select.value !== "own";
  if (select.matches("[data-offcut-shape]"))
    for (const part of all("[data-shape]", form)) part.hidden = !(part.dataset.shape ?? "").split(" ").includes(select.value);
});

// Corners touched one after the other; the first touched again ends the round.
document.addEventListener("click", (event) => {
  const pad = event.target instanceof Element ? event.target.closest("svg[data-corner-pad]") : null;
  const corners = field("o-corners");
  if (!(pad instanceof SVGSVGElement) || !corners) return;
  const box = pad.getBoundingClientRect();
  const at = (/** @type {number} */ p, /** @type {number} */ from, /** @type {number} */ size, /** @type {number} */ mm) =>
    Math.round((((p - from) / size) * mm) / STEP) * STEP;
  const [x, y] = [
    at(event.clientX, box.left, box.width, pad.viewBox.baseVal.width),
    at(event.clientY, box.top, box.height, pad.viewBox.baseVal.height),
  ];
  const all = corners.value.split(/\s+/).filter(Boolean);
  const [firstX, firstY] = (all[0] ?? "").split(",").map(Number);
  if (all.length > 2 && Math.hypot(firstX - x, firstY - y) <= CLOSE) return;
  corners.value = [...all, `${x},${y}`].join(" ");
  draw(pad, corners.value);
});
document.addEventListener("input", (event) => {
  const corners = event.target;
  const pad = document.querySelector("svg[data-corner-pad]");
  if (corners instanceof HTMLInputElement && corners.id === "o-corners" && pad instanceof SVGSVGElement) draw(pad, corners.value);
});

/**
 * @param {SVGSVGElement} pad
 * @param {string} corners
 */
function draw(pad, corners) {
  let line = pad.querySelector("polygon");
  if (!line) {
    line = document.createElementNS("http://www.w3.org/2000/svg", "polygon");
    pad.append(line);
  }
  line.setAttribute(
    "points",
    corners
      .split(/\s+/)
      .filter((c) => /^-?[\d.]+,-?[\d.]+$/.test(c))
      .join(" "),
  );
}
