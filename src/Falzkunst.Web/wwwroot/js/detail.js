// @ts-check
// Fine detail: from place to place, ways to mend laid over the table, and what was before them.
import { about, all, openCommands } from "./dom.js";
import { say } from "./notice.js";
import { table } from "./picked.js";
import { headers } from "./requests.js";
import { stepped } from "./light-table/hand-maths.js";

const rows = () => all("#ledger [data-place]");
const held = () => /** @type {HTMLButtonElement | null} */ (document.querySelector("[data-hold]"));

/** @param {number} number */
function goTo(number) {
  const t = table();
  const pin = t?.layout.pins.find((p) => p.number === number);
  if (!t || !pin) return;
  t.lookAt(pin, number);
  mark();
  document.querySelector(`#ledger [data-place="${number}"]`)?.scrollIntoView({ block: "nearest" });
  const said = document.getElementById("place-said");
  if (said) said.textContent = `Place ${number}: ${pin.message}. ${pin.note}.`;
}

function mark() {
  for (const row of rows()) {
    const is = Number(row.dataset.place) === table()?.place;
    row.setAttribute("aria-pressed", String(is));
    row.closest("li")?.classList.toggle("is-selected", is);
  }
}

/**
 * The place before or after the one looked at, round and round; false where there are none.
 * @param {number} by 1 or -1
 */
export function stepPlace(by) {
  const numbers = rows().map((r) => Number(r.dataset.place));
  if (numbers.length === 0) return false;
  const at = numbers.indexOf(table()?.place ?? NaN);
  goTo(numbers[stepped(at, by, numbers.length)]);
  return true;
}

document.addEventListener("pin-touched", (event) => goTo(event.detail));

document.addEventListener("click", (event) => {
  const place = about(event, "[data-place]")?.dataset.place;
  const spot = about(event, "[data-goto]")?.dataset.goto;
  const way = about(event, "[data-preview]");
  const widths = about(event, "[data-widths]");
  if (place) goTo(Number(place));
  if (spot) {
    const [x, y, reach] = spot.split(" ").map(Number);
    table()?.lookAt({ x, y, reach });
    mark();
  }
  if (way) preview(way);
  if (widths) {
    const shown = widths.getAttribute("aria-pressed") !== "true";
    widths.setAttribute("aria-pressed", String(shown));
    table()?.showWidths(shown);
  }
  if (about(event, "[data-commands]")) openCommands();
});

// What an action would do, laid over the table; touched again, or once something is done, it is taken off.
let asked = 0;
/** @param {HTMLElement} button */
async function preview(button) {
  const number = ++asked;
  const isOn = button.getAttribute("aria-pressed") === "true";
  takeOff();
  if (isOn) return;
  const form = button.closest("form");
  const body = new URLSearchParams();
  if (form) for (const [name, value] of new FormData(form)) body.append(name, String(value));
  for (const [name, value] of Object.entries(JSON.parse(button.dataset.values ?? "{}"))) body.set(name, String(value));
  body.set("picked", document.body.dataset.selected ?? "");
  button.setAttribute("aria-pressed", "true");
  button.setAttribute("aria-busy", "true");
  const answer = await fetch(`?handler=Preview&act=${button.dataset.preview}`, { method: "POST", body, headers: headers() });
  button.removeAttribute("aria-busy");
  if (number !== asked) return;
  if (!answer.ok) {
    notUnderstood(button, answer);
    return;
  }
  const { paths, refusal } = await answer.json();
  if (refusal) {
    takeOff();
    say(refusal);
    return;
  }
  table()?.showPreview(paths);
  const hold = held();
  if (hold) hold.disabled = false;
}

/**
 * Numbers that were not understood are said beside their fields, as when the form is sent.
 * @param {HTMLElement} button
 * @param {Response} answer
 */
function notUnderstood(button, answer) {
  takeOff();
  const told = JSON.parse(answer.headers.get("HX-Trigger") ?? "{}").refused;
  if (told) button.dispatchEvent(new CustomEvent("refused", { bubbles: true, detail: told }));
}

function takeOff() {
  for (const b of all("[data-preview][aria-pressed=true]")) b.setAttribute("aria-pressed", "false");
  table()?.showPreview(null);
  const hold = held();
  if (hold) hold.disabled = true;
}

const hold = (/** @type {Event} */ event, /** @type {boolean} */ is) => {
  if (about(event, "[data-hold]") || !is) table()?.showBefore(is);
};
document.addEventListener("pointerdown", (event) => hold(event, true));
document.addEventListener("pointerup", (event) => hold(event, false));
document.addEventListener("pointercancel", (event) => hold(event, false));
document.addEventListener("keydown", (event) => {
  if ((event.key === " " || event.key === "Enter") && about(event, "[data-hold]")) hold(event, true);
});
document.addEventListener("keyup", (event) => hold(event, false));

// Ledger and tray are renewed: the place that is looked at stays marked, what was laid over the table is of the past.
document.addEventListener("htmx:after:swap", () => {
  if (!document.querySelector("#ledger .places")) return;
  mark();
  if (!document.querySelector("[data-preview][aria-pressed=true]")) takeOff();
});
