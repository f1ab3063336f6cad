// Where the practice machine stands, from the status that the server sends, onto the light table.
const over = document.getElementById("over");
if (over) {
  let stepSeen;
  // Along the tray alone; the page itself stays where it is.
  const bringIn = step => {
    const tray = document.getElementById("tray");
    if (step) tray.scrollLeft += step.getBoundingClientRect().left - tray.getBoundingClientRect().left - (tray.clientWidth - step.clientWidth) / 2;
  };
  const show = () => {
    const status = document.getElementById("run-progress");
    const table = document.querySelector("light-table");
    if (!table?.showProgress) return;
    table.showProgress(status ? {
      step: Number(status.dataset.step),
      line: Number(status.dataset.line),
      head: status.dataset.x ? { x: Number(status.dataset.x), y: Number(status.dataset.y) } : null,
    } : null);
    if (status && status.dataset.step !== stepSeen) bringIn(document.querySelector(".timeline .is-now"));
    stepSeen = status?.dataset.step;
  };
  new MutationObserver(show).observe(over, { childList: true, subtree: true, attributes: true, attributeFilter: ["data-step", "data-line", "data-x", "data-y"] });
  // While a run is under way the page asks where it stands; a hidden page does not.
  setInterval(() => {
    if (document.getElementById("run-poll") && !document.hidden)
      htmx.ajax("GET", "?handler=Status", { source: "#poller", target: "#tray", swap: "none" });
  }, 500);
  customElements.whenDefined("light-table").then(show);
}
