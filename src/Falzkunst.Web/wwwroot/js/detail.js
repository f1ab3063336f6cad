// Fine detail: from place to place, ways to mend laid over the table, and what was before them.
import { say } from "./notice.js";
import { headers } from "./requests.js";

const table = () => document.querySelector("light-table");
const rows = () => [...document.querySelectorAll("#ledger [data-place]")];

function goTo(number) {
  const pin = table()?.layout.pins.find(p => p.number === number);
  if (!pin) return;
  table().lookAt(pin, number);
  mark();
  document.querySelector(`#ledger [data-place="${number}"]`)?.scrollIntoView({ block: "nearest" });
  const said = document.getElementById("place-said");
  if (said) said.textContent = `Place ${number}: ${pin.message}. ${pin.note}.`;
}

const mark = () => {
  for (const row of rows()) {
    const is = Number(row.dataset.place) === table()?.place;
    row.setAttribute("aria-pressed", String(is));
    row.closest("li").classList.toggle("is-selected", is);
  }
};

/** The place before or after the one looked at, round and round; false where there are none. */
export function stepPlace(by) {
  const numbers = rows().map(r => Number(r.dataset.place));
  if (numbers.length === 0) return false;
  const at = numbers.indexOf(table().place);
  goTo(numbers[at < 0 ? (by > 0 ? 0 : numbers.length - 1) : (at + by + numbers.length) % numbers.length]);
  return true;
}

document.addEventListener("pin-touched", event => goTo(event.detail));

document.addEventListener("click", event => {
  const find = name => event.target.closest(`[data-${name}]`);
  const place = find("place"), spot = find("goto"), way = find("preview"), widths = find("widths");
  if (place) goTo(Number(place.dataset.place));
  if (spot) {
    const [x, y, reach] = spot.dataset.goto.split(" ").map(Number);
    table().lookAt({ x, y, reach });
    mark();
  }
  if (way) preview(way);
  if (widths) {
    const shown = widths.getAttribute("aria-pressed") !== "true";
    widths.setAttribute("aria-pressed", String(shown));
    table().showWidths(shown);
  }
  if (find("commands")) document.getElementById("commands").dispatchEvent(new CustomEvent("open-commands"));
});

// What an action would do, laid over the table; touched again, or once something is done, it is taken off.
let asked = 0;
async function preview(button) {
  const number = ++asked, isOn = button.getAttribute("aria-pressed") === "true";
  takeOff();
  if (isOn) return;
  const { preview: action, values } = button.dataset, form = button.closest("form");
  const body = new URLSearchParams(form ? new FormData(form) : {});
  for (const [name, value] of Object.entries(JSON.parse(values ?? "{}"))) body.set(name, value);
  body.set("picked", document.body.dataset.selected ?? "");
  button.setAttribute("aria-pressed", "true");
  button.setAttribute("aria-busy", "true");
  const answer = await fetch(`?handler=Preview&act=${action}`, { method: "POST", body, headers: headers() });
  button.removeAttribute("aria-busy");
  if (number !== asked) return;
  if (!answer.ok) return notUnderstood(button, answer);
  const { paths, refusal } = await answer.json();
  if (refusal) {
    takeOff();
    return say(refusal);
  }
  table().showPreview(paths);
  const hold = document.querySelector("[data-hold]");
  if (hold) hold.disabled = false;
}

// Numbers that were not understood are said beside their fields, as when the form is sent.
function notUnderstood(button, answer) {
  takeOff();
  const told = JSON.parse(answer.headers.get("HX-Trigger") ?? "{}").refused;
  if (told) button.dispatchEvent(new CustomEvent("refused", { bubbles: true, detail: told }));
}

function takeOff() {
  for (const b of document.querySelectorAll("[data-preview][aria-pressed=true]")) b.setAttribute("aria-pressed", "false");
  table()?.showPreview(null);
  const hold = document.querySelector("[data-hold]");
  if (hold) hold.disabled = true;
}

const held = (event, is) => {
  if (event.target.closest?.("[data-hold]") || !is) table()?.showBefore(is);
};
document.addEventListener("pointerdown", event => held(event, true));
document.addEventListener("pointerup", event => held(event, false));
document.addEventListener("pointercancel", event => held(event, false));
document.addEventListener("keydown", event => { if ((event.key === " " || event.key === "Enter") && event.target.closest?.("[data-hold]")) held(event, true); });
document.addEventListener("keyup", event => held(event, false));

// Ledger and tray are renewed: the place that is looked at stays marked, what was laid over the table is of the past.
document.addEventListener("htmx:after:swap", () => {
  if (!document.querySelector("#ledger .places")) return;
  mark();
  if (!document.querySelector("[data-preview][aria-pressed=true]")) takeOff();
});
