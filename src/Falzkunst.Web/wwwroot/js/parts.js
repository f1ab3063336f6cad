// @ts-check
// Small parts of pages: notices that close, dialogs that open, fields that keep what was typed.
import { about, dialog } from "./dom.js";

document.addEventListener("click", (event) => {
  if (about(event, "[data-dismiss]")) about(event, ".notice")?.remove();
});

// A field keeps what was typed in it while the page around it is renewed; where nothing was typed since it got the focus, it
// shows the new value like any other.
/** @type {string | null} */
let atFocus = null;
document.addEventListener("focusin", (event) => {
  atFocus = /** @type {HTMLInputElement} */ (event.target).value ?? null;
});
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

// Nothing that comes in later is Alpine's; without its observer a frame of the table, and a ledger renewed, cost less.
document.addEventListener("alpine:initialized", () => Alpine.stopObservingMutations());
