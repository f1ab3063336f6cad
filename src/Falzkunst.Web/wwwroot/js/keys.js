// @ts-check
// Keys of the whole page; the table in docs/keys.md and the dialog behind "?" list the same.
import { act } from "./actions.js";
import { ARROWS, dialog, openCommands } from "./dom.js";
import { now, table as theTable } from "./picked.js";
import { stepPlace } from "./detail.js";
import { stepTab } from "./tabs.js";
import { piecesOfLedger, select, step } from "./selection.js";
import { keyWith } from "./light-table/copies.js";
import { stepped } from "./light-table/hand-maths.js";
import { movePicked } from "./light-table/tools/place.js";
import { write } from "./words.js";

/** @typedef {import("./light-table/light-table.js").LightTable} LightTable */
/**
 * @typedef {object} Binding
 * @property {string[]} keys names of keys; letters in lower case mean both cases
 * @property {"ctrl" | "alt"} [with] what is held; nothing else is, but Shift
 * @property {boolean} [everywhere] also in fields
 * @property {(table: LightTable | null) => unknown} [when] it is for what the page shows now
 * @property {(table: LightTable, event: KeyboardEvent) => unknown} does false: it was for nothing, and other keys are asked
 */

const ARROW_KEYS = Object.keys(ARROWS);
const DIGITS = ["1", "2", "3", "4", "5", "6", "7", "8", "9"];

const arranges = (/** @type {LightTable | null} */ t) => t?.canArrange;
const places = (/** @type {LightTable | null} */ t) => t?.canPlace;
const byHand = (/** @type {LightTable | null} */ t) => arranges(t) || places(t);
const button = (/** @type {string} */ which) => /** @type {HTMLButtonElement | null} */ (document.querySelector(which));

/** The first that fits and does something is taken. @type {Binding[]} */
const BINDINGS = [
  { keys: ["k"], with: "ctrl", everywhere: true, does: openCommands },
  { keys: ["z"], with: "ctrl", does: (table, event) => history(table, event.shiftKey ? "redo" : "undo") },
  { keys: ["a"], with: "ctrl", when: arranges, does: () => select(piecesOfLedger().join(",")) },
  { keys: ["d"], with: "ctrl", when: arranges, does: () => act("duplicate") },
  { keys: ARROW_KEYS, when: byHand, does: nudge },
  { keys: ARROW_KEYS, with: "alt", when: byHand, does: nudge },
  {
    keys: DIGITS,
    with: "alt",
    when: arranges,
    does: (_, event) => press(document.querySelectorAll("[data-stock]")[Number(event.code.slice(5)) - 1]),
  },
  { keys: DIGITS, does: (_, event) => press(document.querySelectorAll("#route a")[Number(event.key) - 1]) },
  { keys: ["?"], does: () => dialog("keys")?.showModal() },
  { keys: ["/"], does: openCommands },
  { keys: ["t"], does: (_, event) => stepTab(event.shiftKey ? -1 : 1) },
  { keys: ["h"], does: () => press(button("[data-opens=history]")) },
  { keys: ["f"], does: (table) => table?.fit() },
  { keys: ["s"], does: (table) => table?.nextMode() },
  { keys: ["+", "="], does: (table) => table?.camera.zoom(1.25) },
  { keys: ["-", "−"], does: (table) => table?.camera.zoom(0.8) },
  { keys: ["]"], does: () => stepPlace(1) || step(1) },
  { keys: ["["], does: () => stepPlace(-1) || step(-1) },
  { keys: ["."], when: byHand, does: (table) => table.stepLine(1) },
  { keys: [","], when: byHand, does: (table) => table.stepLine(-1) },
  { keys: ["}"], when: arranges, does: (table) => toFinding(table, 1) },
  { keys: ["{"], when: arranges, does: (table) => toFinding(table, -1) },
  { keys: ["m"], when: arranges, does: () => press(button("#tray .is-finding .act")) },
  { keys: ["Escape"], when: arranges, does: back },
  { keys: ["Escape"], when: places, does: (table) => table.pick(keyWith(table.layout, [])) },
  { keys: ["r"], when: places, does: (table, event) => movePicked(table, event.shiftKey ? -90 : 90, { x: 0, y: 0 }) },
  { keys: ["p"], when: places, does: () => press(button("#pin-picked")) },
  { keys: ["g"], when: arranges, does: (table) => table.toggleGrid() },
  { keys: ["n"], when: (t) => arranges(t) && now().lines.length === 1, does: (table) => table.nodes.show(!table.nodes.isShown) },
  { keys: ["w"], when: arranges, does: write },
  { keys: ["n"], does: () => press(button("#settle")) },
  { keys: ["Delete", "Backspace"], when: (t) => arranges(t) && now().pieces.length, does: () => act("delete") },
];

document.addEventListener("keydown", (event) => {
  const table = theTable();
  const target = /** @type {Element} */ (event.target);
  const isTyping = target.closest("input:not([type=radio], [type=checkbox]), select, textarea, dialog");
  const held = event.ctrlKey || event.metaKey ? "ctrl" : event.altKey ? "alt" : undefined;
  // With Alt a digit may come as another character; its place on the keyboard stays.
  const key = held === "alt" && event.code.startsWith("Digit") ? event.code.slice(5) : event.key;
  for (const binding of BINDINGS) {
    if (!binding.keys.includes(key) && !binding.keys.includes(key.toLowerCase())) continue;
    if (binding.with !== held || (isTyping && (!binding.everywhere || target.closest("dialog")))) continue;
    if (binding.when && !binding.when(table)) continue;
    if (binding.does(/** @type {LightTable} */ (table), event) === false) continue;
    event.preventDefault();
    return;
  }
});

/** @returns {boolean} there was something to press */
function press(/** @type {Element | null | undefined} */ element) {
  if (!(element instanceof HTMLElement)) return false;
  element.click();
  return true;
}

function history(/** @type {LightTable | null} */ table, /** @type {"undo" | "redo"} */ way) {
  table?.nudge.send();
  const found = button(`[data-history="${way}"]`);
  // Undo says itself that there is nothing to undo.
  if (found && (!found.disabled || way === "undo")) found.click();
}

function nudge(/** @type {LightTable} */ table, /** @type {KeyboardEvent} */ event) {
  if (!table.nudge.takes || /** @type {Element} */ (event.target).closest("[role=radiogroup], input")) return false;
  const [x, y] = ARROWS[event.key];
  const by = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
  if (table.canPlace || !table.nodes.move(x * by, y * by)) table.nudge.step(x * by, y * by);
  return true;
}

// From what is being drawn or bent to the line, from the line to its piece, from the piece to nothing.
function back(/** @type {LightTable} */ table) {
  if (table.drawing) table.draw(null);
  else if (table.nodes.isShown) table.nodes.show(false);
  else select(now().lines.length ? now().pieces.join(",") : "none");
}

// Picks what the next finding is about, and brings its place into the middle.
let finding = 0;
function toFinding(/** @type {LightTable} */ table, /** @type {number} */ by) {
  const pins = table.layout.pins;
  if (pins.length === 0) return;
  const at = pins.findIndex((p) => p.number === finding);
  const pin = pins[stepped(at, by, pins.length)];
  finding = pin.number;
  table.camera.centre(pin.x, pin.y);
  select(pin.piece ?? "none");
}
