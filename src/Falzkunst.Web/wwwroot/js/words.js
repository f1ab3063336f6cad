// @ts-check
// Words as they are typed: shown on the table while the hand is still at it, taken by leaving the field or by Ctrl and Enter.
import { sketch } from "./actions.js";
import { Latest } from "./light-table/latest.js";
import { table as theTable } from "./picked.js";
import { bringToSight } from "./tabs.js";

/** @type {Map6} */
const CARD = [1, 0, 0, 1, 0, 0];

/** What is asked while words are typed; null between. @type {Latest<Record<string, unknown>, string> | null} */
let asking = null;

/** The field of the picked text. @param {EventTarget | null} target */
const written = (target) => (target instanceof HTMLTextAreaElement && "writes" in target.dataset ? target : null);

document.addEventListener("input", (event) => {
  const field = written(event.target);
  if (field?.id !== "words") return;
  const table = theTable();
  asking ??= new Latest((values) => sketch("words", values));
  // Where the piece is drawn, which is not where it lies on the card when pieces are spread out.
  if (field.value.trim()) asking.ask({ words: field.value }, (d) => table?.ghost.preview(d, table.sight.pickedLine()?.cardMap ?? CARD));
});

// What is taken, or left as it was, is no sketch any more.
document.addEventListener("focusout", (event) => {
  if (!written(event.target)) return;
  asking?.end();
  asking = null;
  theTable()?.ghost.clear();
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

/** Brings the field for words into sight: that of the picked text, or the one that writes new ones. @returns {boolean} there is one */
export function write() {
  const field = /** @type {HTMLTextAreaElement | null} */ (document.getElementById("words") ?? document.getElementById("write-words"));
  if (!field) return false;
  bringToSight(field);
  field.focus();
  field.select();
  return true;
}
