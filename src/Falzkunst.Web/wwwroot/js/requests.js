// @ts-check
import { all } from "./dom.js";
import { say } from "./notice.js";
import { now, short, table } from "./picked.js";

// Every request of htmx says which revision the page shows and what is selected, so that the server can refuse a stale edit.
// What is selected may be long: it goes in the body, and only into the address of what is asked for in short.
const token = /** @type {HTMLMetaElement | null} */ (document.querySelector('meta[name="falzkunst-token"]'))?.content ?? "";
const selected = () => document.body.dataset.selected ?? "";

/** Headers of a request by hand. */
export const headers = () => ({ "X-Falzkunst-Token": token, "X-Project-Head": document.body.dataset.head ?? "" });

/** @type {WeakMap<object, string>} */
const sent = new WeakMap();
document.addEventListener("htmx:config:request", (event) => {
  const { request, sourceElement } = event.detail.ctx;
  if (request.method === "GET") {
    if (selected() && !request.body.has("at")) request.body.set("at", short(selected()));
    return;
  }
  // Enter in a changed field says the same thing twice: by the change, and by the form.
  const form = sourceElement instanceof HTMLFormElement ? sourceElement : null;
  if (!form) return;
  withTicked(form, request.body);
  if (!leavesOutUnchanged(form, request.body) || isSentAlready(form, request.body)) event.preventDefault();
});
for (const over of /** @type {const} */ (["htmx:after:request", "htmx:error"])) {
  document.addEventListener(over, (event) => {
    const source = event.detail.ctx?.sourceElement;
    if (source) sent.delete(source);
  });
}

/**
 * An operation touched in a ticked row is for the lines of all ticked rows.
 * @param {HTMLFormElement} form
 * @param {FormData} body
 */
function withTicked(form, body) {
  const ticked = /** @type {HTMLInputElement[]} */ (all(".kind-rows [data-tick]")).filter((t) => t.checked);
  const own = form.closest(".kind-row")?.querySelector("[data-tick]");
  if (own instanceof HTMLInputElement && own.checked && ticked.length > 1) body.set("act-on", ticked.map((t) => t.dataset.tick).join(";"));
}

/**
 * @param {HTMLFormElement} form
 * @param {FormData} body
 */
function isSentAlready(form, body) {
  const text = new URLSearchParams([...body].map(([name, value]) => [name, String(value)])).toString();
  if (sent.get(form) === text) return true;
  sent.set(form, text);
  return false;
}

/**
 * A form of several numbers sends those that were changed, so that one setting changed changes one setting.
 * @param {HTMLFormElement} form
 * @param {FormData} body
 * @returns {boolean} there is something to send
 */
function leavesOutUnchanged(form, body) {
  if (!form.matches("form[data-changed]")) return true;
  const fields = /** @type {HTMLInputElement[]} */ ([...form.elements]).filter(
    (f) => f.name && f.matches("input:not([type=radio], [type=checkbox], [type=hidden])"),
  );
  for (const field of fields) if (field.value === field.defaultValue) body.delete(field.name);
  const isOther = (/** @type {HTMLSelectElement} */ s) => ![...s.options].some((o) => o.defaultSelected && o.value === s.value);
  return fields.some((f) => body.has(f.name)) || [...form.querySelectorAll("select")].some(isOther);
}

// Regions of the page in the versions that were sent; a region need not be sent twice. After a fault nothing is certain.
/** @type {Map<string, string>} */
const regions = new Map();

// Right before it is sent: edits wait for each other, and the head moves while they do.
document.addEventListener("htmx:before:request", (event) => {
  const { request } = event.detail.ctx;
  Object.assign(request.headers, headers());
  request.action = onOwnVersion(request.action);
  const rows = all("#ledger [data-row]").map((r) => r.dataset.row);
  request.headers["X-Regions"] = [...regions].map((r) => r.join("=")).join(" ");
  if (!request.body) return;
  if (rows.length) request.body.set("rows", rows.join(" "));
  if (selected()) request.body.set("picked", selected());
});

document.addEventListener("htmx:before:response", (event) => {
  const { hx, request, response } = event.detail.ctx;
  rememberVersion(request.action, response);
  for (const [target, version] of (response.headers.get("X-Regions") ?? "").split(" ").map((r) => r.split("=")))
    if (version) regions.set(target, version);
  // The table asks for what an edit changed on it while ledger and tray are still being put in place.
  const shown = JSON.parse(hx.trigger ?? "{}")["project-shown"];
  if (shown && String(shown.head) !== document.body.dataset.head) table()?.expect(String(shown.head));
});
document.addEventListener("htmx:error", () => regions.clear());

// A thing of the drawer is changed at the version that a form shows. Fields typed through quickly wait for each other with the version
// that they were typed at; what this window's own changes have made of it meanwhile is what they are about. A version that somebody
// else made follows on none of these, and is refused.
/** @type {Map<string, string>} from "/drawer/stocks/kraft-240@3" to "4" */
const ownVersions = new Map();

/** @param {string} action */
function versionOf(action) {
  const url = new URL(action, location.href);
  const version = url.pathname.startsWith("/drawer/") ? url.searchParams.get("version") : null;
  return { url, version };
}

/** @param {string} action */
function onOwnVersion(action) {
  const { url, version } = versionOf(action);
  if (version === null) return action;
  let now = version;
  for (let next; (next = ownVersions.get(`${url.pathname}@${now}`));) now = next;
  url.searchParams.set("version", now);
  return url.pathname + url.search;
}

/**
 * @param {string} action
 * @param {{ status?: number, headers: Headers }} response
 */
function rememberVersion(action, response) {
  const { url, version } = versionOf(action);
  const made = response.headers.get("X-Drawer-Version");
  if (version !== null && made !== null && response.status === 200 && made !== version) ownVersions.set(`${url.pathname}@${version}`, made);
}

document.addEventListener("project-shown", (event) => {
  const { dataset } = document.body;
  const { asked, selected } = event.detail;
  const head = String(event.detail.head);
  // An answer to what was selected before does not take a newer choice back; the tray is asked for once more.
  const isOurs = asked === (dataset.selected ?? "");
  if (!isOurs) showNow();
  const isOther = isOurs && selected !== asked;
  const before = isOther && JSON.stringify(now());
  if (isOther) dataset.selected = selected;
  if (head !== dataset.head) {
    dataset.head = head;
    table()?.showsHead(head);
  } else if (isOther && before !== JSON.stringify(now())) {
    table()?.select();
  }
});

// The project moved on between page and scene, such as by a change still on its way when the page was asked for.
document.addEventListener("scene-differs", showNow);

/** Asks for ledger and tray as they are now; a newer question takes the place of an older one. */
export function showNow() {
  htmx.ajax("POST", "?handler=Show", { source: "#chooser", target: "#tray", swap: "none" });
}

// The server cannot be reached, or answered with something that is no page of ours.
document.addEventListener("htmx:error", () => say("The server did not answer. Nothing was changed; try once more in a moment."));
