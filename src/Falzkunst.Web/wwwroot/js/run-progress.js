// @ts-check
// Where the practice machine stands, from the status that the server sends, onto the light table.
import { table } from "./picked.js";

const EVERY = 500; // ms

const over = document.getElementById("over");
if (over) {
  /** @type {string | undefined} */
  let stepSeen;
  // Within its list alone; the page itself stays where it is.
  const bringIn = (/** @type {HTMLElement | null} */ step) => {
    const panel = step?.closest(".tray-panel");
    if (!step || !panel) return;
    panel.scrollTop += step.getBoundingClientRect().top - panel.getBoundingClientRect().top - (panel.clientHeight - step.clientHeight) / 2;
  };
  const show = () => {
    const status = document.getElementById("run-progress")?.dataset;
    const t = table();
    if (!t?.showProgress) return;
    const head = status?.x ? { x: Number(status.x), y: Number(status.y) } : null;
    t.showProgress(status ? { step: Number(status.step), line: Number(status.line), head } : null);
    if (status && status.step !== stepSeen) bringIn(document.querySelector(".timeline .is-now"));
    stepSeen = status?.step;
  };
  new MutationObserver(show).observe(over, {
    childList: true,
    subtree: true,
    attributes: true,
    attributeFilter: ["data-step", "data-line", "data-x", "data-y"],
  });
  // While a run is under way the page asks where it stands; a hidden page does not.
  setInterval(() => {
    if (document.getElementById("run-poll") && !document.hidden)
      htmx.ajax("GET", "?handler=Status", { source: "#poller", target: "#tray", swap: "none" });
  }, EVERY);
  customElements.whenDefined("light-table").then(show);
}
