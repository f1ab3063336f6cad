// @ts-check
// Work in the background: where the page says that it waits for some, it asks how far that is, and draws each better layout.
import { table } from "./picked.js";

const EVERY = 700; // ms

const station = document.getElementById("tray");
if (station) {
  const answers = () => document.getElementById("settling")?.dataset.answers;
  let seen = answers();
  new MutationObserver(() => {
    if (answers() === seen) return;
    seen = answers();
    table()?.reload();
  }).observe(station, { childList: true, subtree: true, attributes: true, attributeFilter: ["data-answers"] });
  // A hidden page does not ask.
  setInterval(() => {
    if (document.querySelector("[data-poll]") && !document.hidden)
      htmx.ajax("POST", "?handler=Show", { source: "#poller", target: "#tray", swap: "none" });
  }, EVERY);
}
