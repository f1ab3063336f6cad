// @ts-check
// Small parts of pages: notices that close, dialogs that open, fields that keep what was typed.
import { about, dialog } from "./dom.js";

document.addEventListener("click", (event) => {
  if (about(event, "[data-dismiss]")) about(event, ".notice")?.remove();
  if (about(event, "[data-dismiss-offer]")) about(event, ".is-offer")?.remove();
});

// A field keeps what was typed in it while the page around it is renewed; where nothing was typed since it got the focus, it
// shows the new value like any other.
/** @type {string | null} */
let atFocus = null;
document.addEventListener("focusin", (event) => {
  atFocus = /** @type {HTMLInputElement} */ (event.target).value ?? null;
});
// Escape gives back what stood there and commits nothing.
document.addEventListener(
  "keydown",
  (event) => {
    const field = event.target;
    if (event.key !== "Escape" || !(field instanceof HTMLInputElement) || field.closest("dialog")) return;
    if (!field.matches("input:not([type=radio], [type=checkbox], [type=file])")) return;
    const was = field.defaultValue;
    if (field.value !== was) {
      field.value = was;
      field.dispatchEvent(new Event("input", { bubbles: true }));
    }
    field.blur();
    event.preventDefault();
    event.stopImmediatePropagation();
  },
  true,
);
document.addEventListener("htmx:after:swap", () => {
  const field = document.activeElement;
  if (!(field instanceof HTMLInputElement) || !field.matches("input:not([type=radio], [type=checkbox], [type=file])")) return;
  if (field.value !== atFocus || field.value === field.defaultValue) return;
  atFocus = field.value = field.defaultValue;
  field.select();
});

// Dialogs that buttons open, and close again with a choice.
document.addEventListener("click", (event) => {
  const opens = about(event, "[data-opens]")?.dataset.opens;
  const closes = about(event, "[data-closes]")?.dataset.closes;
  if (opens) dialog(opens)?.showModal();
  if (closes) dialog(closes)?.close();
});

// A sheet to choose from closes with Escape, as by its button; ticks are set and taken all at once.
document.addEventListener("keydown", (event) => {
  const sheet = document.querySelector("#over [data-sheet]");
  if (event.key !== "Escape" || !sheet || document.querySelector("dialog[open]")) return;
  /** @type {HTMLElement | null} */ (sheet.querySelector("[data-closes-sheet]"))?.click();
  event.preventDefault();
  event.stopImmediatePropagation();
});
document.addEventListener("click", (event) => {
  const on = about(event, "[data-tick-all]") ? true : about(event, "[data-tick-none]") ? false : null;
  if (on === null) return;
  const boxes = /** @type {NodeListOf<HTMLInputElement>} */ (about(event, "form")?.querySelectorAll("input[type=checkbox]"));
  for (const box of boxes) box.checked = on;
});

// Nothing that comes in later is Alpine's; without its observer a frame of the table, and a ledger renewed, cost less.
document.addEventListener("alpine:initialized", () => Alpine.stopObservingMutations());
