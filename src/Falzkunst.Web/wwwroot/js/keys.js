// Keys of the whole page; the table in docs/keys.md and the dialog behind "?" list the same.
import { act as doAction } from "./actions.js";
import { now } from "./picked.js";
import { stepPlace } from "./detail.js";
import { select, step } from "./selection.js";
import { act, keyWith } from "./light-table/placing.js";

const isTyping = target => target.closest("input:not([type=radio], [type=checkbox]), select, textarea, dialog");
const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

document.addEventListener("keydown", event => {
  const table = document.querySelector("light-table"), canArrange = table?.canArrange, canPlace = table?.canPlace;
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "k" && !event.target.closest("dialog")) {
    openCommands();
    event.preventDefault();
    return;
  }
  if ((event.ctrlKey || event.metaKey) && !isTyping(event.target)) {
    const key = event.key.toLowerCase();
    if (key === "z") {
      table?.nudge?.send();
      const button = document.querySelector(`[data-history="${event.shiftKey ? "redo" : "undo"}"]`);
      if (button && (!button.disabled || !event.shiftKey)) button.click();
    } else if (key === "a" && canArrange) select([...document.querySelectorAll("#ledger [data-piece]")].map(r => r.dataset.piece).join(","));
    else if (key === "d" && canArrange) doAction("duplicate");
    else return;
    event.preventDefault();
    return;
  }
  if (event.ctrlKey || event.metaKey || isTyping(event.target)) return;
  const arrow = ARROWS[event.key];
  if (arrow && (canArrange || canPlace) && table.nudge.takes && !event.target.closest("[role=radiogroup], input")) {
    const by = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
    if (canPlace || !table.moveNode(arrow[0] * by, arrow[1] * by)) table.nudge.step(arrow[0] * by, arrow[1] * by);
    event.preventDefault();
    return;
  }
  if (event.altKey) {
    // The stocks of the drawer in their order, for what is picked.
    const chip = canArrange && /^Digit[1-9]$/.test(event.code) && document.querySelectorAll("[data-stock]")[Number(event.code.slice(5)) - 1];
    if (chip) {
      chip.click();
      event.preventDefault();
    }
    return;
  }
  const stations = document.querySelectorAll("#route a");
  const number = Number(event.key);
  if (number >= 1 && number <= stations.length) stations[number - 1].click();
  else if (event.key === "?") document.getElementById("keys").showModal();
  else if (event.key === "/") openCommands();
  else if (event.key === "h" || event.key === "H") document.querySelector("[data-opens=history]")?.click();
  else if (event.key === "f" || event.key === "F") table?.fit();
  else if (event.key === "s" || event.key === "S") table?.nextMode();
  else if (event.key === "+" || event.key === "=") table?.zoom(1.25);
  else if (event.key === "-" || event.key === "−") table?.zoom(0.8);
  else if (event.key === "[" || event.key === "]") (stepPlace(event.key === "]" ? 1 : -1) || step(event.key === "]" ? 1 : -1));
  else if ((event.key === "." || event.key === ",") && (canArrange || canPlace)) table.stepLine(event.key === "." ? 1 : -1);
  else if ((event.key === "{" || event.key === "}") && canArrange) toFinding(table, event.key === "}" ? 1 : -1);
  else if ((event.key === "m" || event.key === "M") && canArrange) document.querySelector("#tray .is-finding .act")?.click();
  else if (event.key === "Escape" && canArrange) back(table);
  else if (event.key === "Escape" && canPlace) table.pick(keyWith(table.layout, []));
  else if ((event.key === "r" || event.key === "R") && canPlace) act(table, event.shiftKey ? -90 : 90, { x: 0, y: 0 });
  else if ((event.key === "p" || event.key === "P") && canPlace) document.getElementById("pin-picked")?.click();
  else if ((event.key === "g" || event.key === "G") && canArrange) table.toggleGrid();
  else if ((event.key === "n" || event.key === "N") && canArrange && now().lines.length === 1) table.showNodes(!table.nodesShown);
  else if ((event.key === "n" || event.key === "N") && document.getElementById("settle")) document.getElementById("settle").click();
  else if ((event.key === "Delete" || event.key === "Backspace") && canArrange && now().pieces.length) doAction("delete");
  else return;
  event.preventDefault();
});

// From what is being drawn or bent to the line, from the line to its piece, from the piece to nothing.
function back(table) {
  if (table.drawing) table.draw(null);
  else if (table.nodesShown) table.showNodes(false);
  else select(now().lines.length ? now().pieces.join(",") : "none");
}

// Picks what the next finding is about, and brings its place into the middle.
let finding = 0;
function toFinding(table, by) {
  const pins = table.layout.pins;
  if (pins.length === 0) return;
  const at = pins.findIndex(p => p.number === finding);
  const pin = pins[at < 0 ? (by > 0 ? 0 : pins.length - 1) : (at + by + pins.length) % pins.length];
  finding = pin.number;
  table.centre(pin.x, pin.y);
  select(pin.piece ?? "none");
}

function openCommands() {
  document.getElementById("commands")?.dispatchEvent(new CustomEvent("open-commands"));
}
