// Keys of the whole page; the table in docs/keys.md and the dialog behind "?" list the same.
import { step } from "./selection.js";

const isTyping = target => target.closest("input:not([type=radio]), select, textarea, dialog");

document.addEventListener("keydown", event => {
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z" && !isTyping(event.target)) {
    const button = document.querySelector(`[data-history="${event.shiftKey ? "redo" : "undo"}"]`);
    if (button && !button.disabled) button.click();
    event.preventDefault();
    return;
  }
  if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
  const table = document.querySelector("light-table");
  const stations = document.querySelectorAll("#route a");
  const number = Number(event.key);
  if (number >= 1 && number <= stations.length) stations[number - 1].click();
  else if (event.key === "?") document.getElementById("keys").showModal();
  else if (event.key === "h" || event.key === "H") document.querySelector("[data-opens=history]")?.click();
  else if (event.key === "f" || event.key === "F") table?.fit();
  else if (event.key === "s" || event.key === "S") table?.nextMode();
  else if (event.key === "+" || event.key === "=") table?.zoom(1.25);
  else if (event.key === "-" || event.key === "−") table?.zoom(0.8);
  else if (event.key === "[") step(-1);
  else if (event.key === "]") step(1);
  else return;
  event.preventDefault();
});
