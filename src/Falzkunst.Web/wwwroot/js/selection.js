// One thing is selected at a time: a piece, a stock, a sheet, a file. Ledger and light table choose alike.
export function select(id) {
  if (!id || document.body.dataset.selected === id) return;
  document.body.dataset.selected = id;
  const url = new URL(location.href);
  url.searchParams.set("at", id);
  history.replaceState(null, "", url);
  const table = document.querySelector("light-table");
  table?.select();
  htmx.ajax("GET", "?handler=Regions", { source: "#chooser", target: "#tray", swap: "none" });
}

document.addEventListener("click", event => {
  const row = event.target.closest("[data-select]");
  if (row) select(row.dataset.select);
});
document.addEventListener("piece-picked", event => {
  select(event.detail.piece);
  document.getElementById(`row-${event.detail.piece}`)?.scrollIntoView({ block: "nearest" });
});

/** Chooses the row before or after the selected one. */
export function step(by) {
  const rows = [...document.querySelectorAll("#ledger [data-select]")];
  if (rows.length === 0) return;
  const now = rows.findIndex(r => r.getAttribute("aria-pressed") === "true");
  const next = rows[(now + by + rows.length) % rows.length];
  select(next.dataset.select);
  next.scrollIntoView({ block: "nearest" });
}
