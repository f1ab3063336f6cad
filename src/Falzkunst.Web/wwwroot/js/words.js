// @ts-check
// Words as they are typed: shown on the table with their caret while the hand is still at it, taken by leaving the field or by Ctrl
// and Enter. The field in the tray has the words; a touch or a drag on the letters on the table sets caret and selection in it.
import { sketch } from "./actions.js";
import { nearestPlace, selectionQuads } from "./carets.js";
import { Latest } from "./light-table/latest.js";
import { table as theTable } from "./picked.js";
import { bringToSight } from "./tabs.js";

/** @type {Map6} */
const CARD = [1, 0, 0, 1, 0, 0];

/** What is asked while words are typed; null between. @type {Latest<Record<string, unknown>, Sketched> | null} */
let asking = null;

/** The letters as they were sketched last, with the words they are of. @type {{ words: string, sketched: Sketched } | null} */
let shown = null;

/** Words are to be written as soon as their field is there. */
let isAwaited = false;

/** The field of the picked text. @param {EventTarget | null} target */
const written = (target) => (target instanceof HTMLTextAreaElement && "writes" in target.dataset ? target : null);

/** The field that is written in, while it has the focus. */
const writing = () => (document.activeElement?.id === "words" ? written(document.activeElement) : null);

// Where the piece is drawn, which is not where it lies on the card when pieces are spread out.
const cardMap = () => theTable()?.sight.pickedLine()?.cardMap ?? CARD;

/** @param {HTMLTextAreaElement} field */
function ask(field) {
  asking ??= new Latest((values) => sketch("words", values));
  const words = field.value;
  if (!words.trim()) return;
  asking.ask({ words }, (sketched) => {
    shown = { words, sketched };
    draw();
  });
}

function draw() {
  const field = writing();
  const table = theTable();
  if (!field || !shown || !table) return;
  const { d, carets } = shown.sketched;
  const marks =
    carets.length && field.value === shown.words ? selectionQuads(carets, field.value, field.selectionStart, field.selectionEnd) : null;
  table.ghost.written(field.value === field.defaultValue ? "" : d, cardMap(), marks);
}

function end() {
  asking?.end();
  asking = null;
  shown = null;
  const table = theTable();
  if (table) table.writer = null;
  table?.ghost.clear();
}

document.addEventListener("input", (event) => {
  const field = written(event.target);
  if (field?.id === "words") ask(field);
});

document.addEventListener("focusin", (event) => {
  const field = written(event.target);
  const table = theTable();
  if (field?.id !== "words" || !table) return;
  table.writer = writer;
  ask(field);
});

document.addEventListener("selectionchange", draw);

// What is taken, or left as it was, is no sketch any more.
document.addEventListener("focusout", (event) => {
  if (written(event.target)) end();
});

/** The place between characters that lies nearest to a place of the table; null where the letters are not near. @param {TablePoint} at */
function placeAt(at) {
  const table = theTable();
  if (!table || !shown?.sketched.carets.length || writing()?.value !== shown.words) return null;
  return nearestPlace(shown.sketched.carets, new DOMMatrix(cardMap()).inverse().transformPoint(at), 40 / table.view.scale);
}

/** What the hand does on the table while words are written. */
const writer = {
  /** @param {TablePoint} at */
  holds: (at) => placeAt(at) !== null,
  /** @param {TablePoint} at @returns {Gesture | null} */
  begin(at) {
    const field = writing();
    const from = placeAt(at);
    if (!field || from === null) return null;
    field.setSelectionRange(from, from);
    return {
      move(to) {
        const place = placeAt(to) ?? from;
        field.setSelectionRange(Math.min(from, place), Math.max(from, place), place < from ? "backward" : "forward");
      },
      end() {},
    };
  },
};

// A touch on the letters leaves the focus where the words are.
document.addEventListener("mousedown", (event) => {
  const table = theTable();
  if (!table?.writer || !(event.target instanceof Element) || !event.target.classList.contains("surface")) return;
  if (table.writer.holds(table.placeOf(event))) event.preventDefault();
});

// Two touches on words: they are written in place.
document.addEventListener("dblclick", (event) => {
  if (!(event.target instanceof Element) || !event.target.classList.contains("surface") || writing()) return;
  const table = theTable();
  if (!table?.sight.isOnPickedLine(table.placeOf(event))) return;
  isAwaited = !writeHere();
});

/** Words that are picked. */
function writeHere() {
  const field = document.getElementById("words");
  if (!field) return false;
  bringToSight(field);
  field.focus();
  return true;
}

document.addEventListener("htmx:after:swap", () => {
  if (isAwaited) isAwaited = !writeHere();
});

document.addEventListener("keydown", (event) => {
  const field = written(event.target);
  if (!field) return;
  if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) {
    event.preventDefault();
    if (field.id === "words") field.blur();
    else field.form?.requestSubmit();
  }
  if (event.key === "Escape" && field.id === "words") {
    field.value = field.defaultValue;
    field.blur();
  }
});

// A list out of a file goes into its field as if it had been pasted.
document.addEventListener(
  "change",
  async (event) => {
    const input = event.target;
    if (!(input instanceof HTMLInputElement) || !input.dataset.reads || !input.files?.length) return;
    event.stopPropagation();
    const field = /** @type {HTMLTextAreaElement | null} */ (document.getElementById(input.dataset.reads));
    const file = input.files[0];
    if (!field || file.size > field.maxLength * 4) return;
    field.value = (await file.text()).slice(0, field.maxLength);
    field.form?.requestSubmit();
  },
  { capture: true },
);

/** Brings the field for words into sight: that of the picked text, or the one that writes new ones. @returns {boolean} there is one */
export function write() {
  const field = /** @type {HTMLTextAreaElement | null} */ (document.getElementById("words") ?? document.getElementById("write-words"));
  if (!field) return false;
  bringToSight(field);
  field.focus();
  field.select();
  return true;
}
