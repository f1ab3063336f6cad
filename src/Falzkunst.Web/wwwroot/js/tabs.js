// @ts-check
// Tabs of the tray. The server knows from a cookie which tab was chosen last for a kind of pick, so that answers come with it open.
import { about, all } from "./dom.js";
import { table } from "./picked.js";
import { showNow } from "./requests.js";

const YEAR = 31_536_000; // s

/** @returns {HTMLElement[]} */
const tabs = () => all("#tray [role=tab]");

/** @param {HTMLElement} tab */
export function openTab(tab) {
  for (const other of tabs()) {
    const is = other === tab;
    other.setAttribute("aria-selected", String(is));
    other.tabIndex = is ? 0 : -1;
    const panel = document.getElementById(other.getAttribute("aria-controls") ?? "");
    if (panel) panel.hidden = !is;
  }
  const kind = tab.closest("[data-tabs]")?.getAttribute("data-tabs");
  if (kind) {
    since = { kind, key: tab.dataset.tab ?? "" };
    remember(kind, since.key);
  }
  table()?.redraw();
  // What takes work is made when it is looked at.
  if (document.getElementById(tab.getAttribute("aria-controls") ?? "")?.dataset.unmade !== undefined) showNow();
}

// An answer to what was asked for before a tab was opened comes with the former one open.
/** @type {{ kind: string, key: string } | null} */
let since = null;
document.addEventListener("htmx:before:request", () => (since = null));
document.addEventListener("htmx:after:swap", () => {
  if (!since) return;
  const { kind, key } = since;
  const tab = tabs().find((t) => t.dataset.tab === key && t.closest(`[data-tabs="${kind}"]`));
  if (tab && tab.getAttribute("aria-selected") !== "true") openTab(tab);
});

/** Opens the tab that something lies in, where that is not in sight. @param {Element | null} element */
export function bringToSight(element) {
  const panel = element?.closest(".tray-panel");
  const tab = panel instanceof HTMLElement && panel.hidden ? tabs().find((t) => t.getAttribute("aria-controls") === panel.id) : null;
  if (tab) openTab(tab);
}

/** The next tab, round and round. @param {number} by 1 or -1 */
export function stepTab(by) {
  const all = tabs();
  if (all.length === 0) return false;
  const at = all.findIndex((t) => t.getAttribute("aria-selected") === "true");
  openTab(all[(at + by + all.length) % all.length]);
  return true;
}

/** The tab that was chosen last for each kind of pick. @returns {Map<string, string>} */
function known() {
  const text = /(?:^|; )tabs=([^;]*)/.exec(document.cookie)?.[1] ?? "";
  return new Map(text ? text.split("&").map((p) => /** @type {[string, string]} */ (p.split("="))) : []);
}

/**
 * @param {string} kind
 * @param {string} tab
 */
function remember(kind, tab) {
  const all = known().set(kind, tab);
  document.cookie = `tabs=${[...all].map((p) => p.join("=")).join("&")}; path=/; max-age=${YEAR}; samesite=lax`;
}

document.addEventListener("click", (event) => {
  const tab = about(event, "#tray [role=tab]");
  if (tab) openTab(tab);
  const opener = about(event, "[data-opens-tab]");
  const named = opener && tabs().find((t) => t.dataset.tab === opener.dataset.opensTab);
  if (named) openTab(named);
  // A link to another station says which of its tabs is to be open there: kind of pick, tab.
  const [kind, key] = (about(event, "[data-tab-ahead]")?.dataset.tabAhead ?? "").split(":");
  if (kind && key) remember(kind, key);
});

// A touch by the mouse leaves the keys where they were: arrows go on moving what is picked.
document.addEventListener("mousedown", (event) => {
  if (about(event, "#tray [role=tab]")) event.preventDefault();
});

document.addEventListener("keydown", (event) => {
  const tab = about(event, "#tray [role=tab]");
  const by = { ArrowDown: 1, ArrowRight: 1, ArrowUp: -1, ArrowLeft: -1 }[event.key];
  if (!tab || !by) return;
  stepTab(by);
  tabs()
    .find((t) => t.tabIndex === 0)
    ?.focus();
  event.preventDefault();
  event.stopImmediatePropagation();
});
