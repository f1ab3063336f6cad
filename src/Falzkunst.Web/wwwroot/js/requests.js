import { say } from "./notice.js";
import { now, short } from "./picked.js";

// Every request of htmx says which revision the page shows and what is selected, so that the server can refuse a stale edit.
// What is selected may be long: it goes in the body, and only into the address of what is asked for in short.
const token = document.querySelector('meta[name="falzkunst-token"]')?.content ?? "";
const selected = () => document.body.dataset.selected ?? "";

/** Headers of a request by hand. */
export const headers = () => ({ "X-Falzkunst-Token": token, "X-Project-Head": document.body.dataset.head ?? "" });

const sent = new WeakMap();
document.addEventListener("htmx:config:request", event => {
  const { ctx } = event.detail, { request, sourceElement } = ctx;
  if (request.method === "GET") {
    if (selected() && !request.body.has("at")) request.body.set("at", short(selected()));
    return;
  }
  if (!unchangedLeftOut(sourceElement, request.body)) return event.preventDefault();
  // Enter in a changed field says the same thing twice: by the change, and by the form.
  if (!sourceElement.matches?.("form")) return undefined;
  const text = new URLSearchParams([...request.body].filter(([, value]) => typeof value === "string")).toString();
  if (sent.get(sourceElement) === text) return event.preventDefault();
  sent.set(sourceElement, text);
  return undefined;
});
document.addEventListener("htmx:after:request", event => sent.delete(event.detail.ctx.sourceElement));
document.addEventListener("htmx:error", event => sent.delete(event.detail.ctx?.sourceElement));

// A form of several numbers sends those that were changed, so that one setting changed changes one setting.
function unchangedLeftOut(form, body) {
  if (!form.matches?.("form[data-changed]")) return true;
  const fields = [...form.elements].filter(f => f.name && f.matches("input:not([type=radio], [type=checkbox], [type=hidden])"));
  for (const field of fields) if (field.value === field.defaultValue) body.delete(field.name);
  return fields.some(f => body.has(f.name));
}

// Right before it is sent: edits wait for each other, and the head moves while they do.
document.addEventListener("htmx:before:request", event => {
  const { request } = event.detail.ctx;
  Object.assign(request.headers, headers());
  const rows = [...document.querySelectorAll("#ledger [data-row]")].map(r => r.dataset.row).join(" ");
  request.headers["X-Regions"] = [...regions].map(r => r.join("=")).join(" ");
  if (!request.body) return;
  if (rows) request.body.set("rows", rows);
  if (selected()) request.body.set("picked", selected());
});

// Regions of the page in the versions that were sent; a region need not be sent twice. After a fault nothing is certain.
const regions = new Map();
document.addEventListener("htmx:before:response", event => {
  for (const [target, version] of (event.detail.ctx.response.headers.get("X-Regions") ?? "").split(" ").map(r => r.split("=")))
    if (version) regions.set(target, version);
});
document.addEventListener("htmx:error", () => regions.clear());

// The table asks for what an edit changed on it while ledger and tray are still being put in place.
document.addEventListener("htmx:before:response", event => {
  const shown = JSON.parse(event.detail.ctx.hx.trigger ?? "{}")["project-shown"];
  if (shown && String(shown.head) !== document.body.dataset.head) document.querySelector("light-table")?.expect(String(shown.head));
});

document.addEventListener("project-shown", event => {
  const { dataset } = document.body, table = document.querySelector("light-table");
  const head = String(event.detail.head), { asked, selected } = event.detail;
  // An answer to what was selected before does not take a newer choice back; the tray is asked for once more.
  if (asked !== (dataset.selected ?? "")) showNow();
  const isOther = asked === (dataset.selected ?? "") && selected !== asked, before = isOther && JSON.stringify(now());
  if (isOther) dataset.selected = selected;
  if (head !== dataset.head) {
    dataset.head = head;
    table?.showsHead(head);
  } else if (isOther && before !== JSON.stringify(now())) {
    table?.select();
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
