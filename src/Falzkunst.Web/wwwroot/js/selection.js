// @ts-check
// What is picked: a piece or several, lines of one, or the sheet, stock or file of other stations. Ledger and table pick alike.
import { about, all } from "./dom.js";
import { now, read, short, table, toggled, write } from "./picked.js";
import { showNow } from "./requests.js";

const LONGEST_KEPT = 600; // characters of what a cookie keeps

/** @param {string | undefined} key */
export function select(key) {
  if (!key || document.body.dataset.selected === key) return;
  document.body.dataset.selected = key;
  const url = new URL(location.href);
  url.searchParams.set("at", short(key));
  history.replaceState(null, "", url);
  remember(key);
  table()?.select();
  // The tab stays, at its beginning.
  for (const panel of all("#tray .tray-panel")) panel.scrollTop = 0;
  // Rows show at once what the tray will say in a moment.
  markRows();
  showNow();
}

// The station that is gone to next begins with the same picked; of very much with its first pieces.
/** @param {string} key */
function remember(key) {
  const project = /^\/projects\/([0-9a-f-]+)\/(pieces|build|detail)/.exec(location.pathname)?.[1];
  const kept = key.length < LONGEST_KEPT ? key : read(key).pieces.slice(0, 40).join(",");
  if (project) document.cookie = `pick=${encodeURIComponent(`${project}|${kept}`)}; path=/; samesite=lax`;
}

/** Ids of the pieces in the ledger, in its order. */
export const piecesOfLedger = () => all("#ledger [data-piece]").map((r) => r.dataset.piece ?? "");

function markRows() {
  const pieces = new Set(now().pieces);
  for (const row of all("#ledger [data-piece]")) {
    const is = pieces.has(row.dataset.piece ?? "");
    if (is === row.classList.contains("is-selected")) continue;
    row.classList.toggle("is-selected", is);
    row.querySelector("[data-select]")?.setAttribute("aria-pressed", String(is));
  }
}

// An edit may have picked something else; which rows are picked is no reason to send them again.
document.addEventListener("project-shown", () => {
  markRows();
  if (document.body.dataset.selected) remember(document.body.dataset.selected);
});

/** @type {string | null} */
let anchor = null;
document.addEventListener("click", (event) => {
  const row = about(event, "[data-select]");
  if (!row) return;
  const piece = /** @type {HTMLElement | null} */ (row.closest("[data-piece]"))?.dataset.piece;
  if (!piece && event.shiftKey && row.dataset.select?.includes(":")) select(added(row.dataset.select));
  else if (piece && event.shiftKey && anchor) select(write({ pieces: between(anchor, piece) }));
  else if (piece && (event.ctrlKey || event.metaKey)) select(write(toggled(now(), piece)));
  else select(row.dataset.select);
  if (piece && !event.shiftKey) anchor = piece;
});

/**
 * What is picked of lines with other lines added.
 * @param {string} key
 */
function added(key) {
  const before = document.body.dataset.selected ?? "";
  return now().lines.length ? `${before};${key}` : key;
}

/**
 * @param {string} from
 * @param {string} to
 */
function between(from, to) {
  const pieces = piecesOfLedger();
  const [a, b] = [pieces.indexOf(from), pieces.indexOf(to)].sort((x, y) => x - y);
  return pieces.slice(Math.max(0, a), b + 1);
}

document.addEventListener("picked-on-table", (event) => {
  select(event.detail.key);
  const { pieces } = read(event.detail.key);
  if (pieces.length === 1) document.getElementById(`row-${pieces[0]}`)?.scrollIntoView({ block: "nearest" });
});

/**
 * Chooses the row before or after the selected one.
 * @param {number} by 1 or -1
 */
export function step(by) {
  const rows = all("#ledger [data-select]");
  if (rows.length === 0) return;
  const at = rows.findIndex((r) => r.getAttribute("aria-pressed") === "true");
  const next = rows[(at + by + rows.length) % rows.length];
  select(next.dataset.select);
  next.scrollIntoView({ block: "nearest" });
}
