// Pieces that settle in the background: the page asks how far they are, and draws each better layout.
const tray = document.getElementById("tray");
if (tray) {
  const answers = () => document.getElementById("settling")?.dataset.answers;
  let seen = answers();
  new MutationObserver(() => {
    if (answers() === seen) return;
    seen = answers();
    document.querySelector("light-table")?.reload();
  }).observe(tray, { childList: true, subtree: true, attributes: true, attributeFilter: ["data-answers"] });
  // A hidden page does not ask.
  setInterval(() => {
    if (document.getElementById("settling-poll") && !document.hidden)
      htmx.ajax("POST", "?handler=Show", { source: "#poller", target: "#tray", swap: "none" });
  }, 700);
}
