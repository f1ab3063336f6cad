import { say } from "./notice.js";

// Every request of htmx says which revision the page shows and what is selected, so that the server can refuse a stale edit.
const token = document.querySelector('meta[name="falzkunst-token"]')?.content ?? "";

// Right before it is sent: edits wait for each other, and the head moves while they do.
document.addEventListener("htmx:before:request", event => {
  const headers = event.detail.ctx.request.headers;
  headers["X-Falzkunst-Token"] = token;
  if (document.body.dataset.head) headers["X-Project-Head"] = document.body.dataset.head;
  const ledger = document.querySelector("#ledger > [data-ledger]");
  if (ledger) headers["X-Ledger"] = ledger.dataset.ledger;
  if (document.body.dataset.selected) headers["X-Selected"] = document.body.dataset.selected;
});

document.addEventListener("project-shown", event => {
  const { dataset } = document.body, table = document.querySelector("light-table");
  const head = String(event.detail.head), { asked, selected } = event.detail;
  // An answer to what was selected before does not take a newer choice back; the tray is asked for once more.
  if (asked !== (dataset.selected ?? "")) showNow();
  const isOther = asked === (dataset.selected ?? "") && selected !== asked;
  if (isOther) dataset.selected = selected;
  if (head !== dataset.head) {
    dataset.head = head;
    table?.reload();
  } else if (isOther) {
    table?.select();
  }
});

// The project moved on between page and scene, such as by a change still on its way when the page was asked for.
document.addEventListener("scene-differs", showNow);

/** Asks for ledger and tray as they are now; a newer question takes the place of an older one. */
export function showNow() {
  htmx.ajax("GET", "?handler=Regions", { source: "#chooser", target: "#tray", swap: "none" });
}

// The server cannot be reached, or answered with something that is no page of ours.
document.addEventListener("htmx:error", () => say("The server did not answer. Nothing was changed; try once more in a moment."));
