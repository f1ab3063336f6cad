// @ts-check
// What the server refuses because of one field is said beside that field, and stays until it is changed.
import { all } from "./dom.js";
import { say } from "./notice.js";

/** @typedef {HTMLInputElement | HTMLSelectElement} Control */

let count = 0;

/**
 * The form that an element is in, or is.
 * @param {EventTarget | null | undefined} target
 * @returns {HTMLFormElement | null}
 */
const formOf = (target) =>
  target instanceof HTMLElement ? (target.closest("form") ?? /** @type {Control} */ (target).form ?? null) : null;

document.addEventListener("refused", (event) => {
  const { field, word } = event.detail;
  const form = formOf(event.target);
  // The command line says itself what it could not do.
  if (form?.closest("#commands")) return;
  const controls = /** @type {Control[]} */ (form ? [...form.elements] : []);
  const control = controls.find((e) => e.name?.toLowerCase() === field.toLowerCase() && e.type !== "hidden");
  if (!form || !control) {
    say(word);
    return;
  }
  clear(form);
  const said = document.createElement("p");
  said.className = "wrong is-beside";
  said.id = `refused-${++count}`;
  said.setAttribute("role", "alert");
  said.textContent = word;
  // It stands under its field and takes no room from what is there.
  (control.closest(".fields > div, .copy-line, .pair, fieldset") ?? control.parentElement)?.append(said);
  control.setAttribute("aria-invalid", "true");
  control.setAttribute("aria-describedby", said.id);
});

document.addEventListener("input", (event) => {
  const { form } = /** @type {Control} */ (event.target);
  if (form) clear(form);
});
// What was done, or asked once more, is judged anew.
document.addEventListener("htmx:before:request", (event) => {
  const form = formOf(event.detail.ctx.sourceElement);
  if (form) clear(form);
});

/** @param {HTMLFormElement} form */
function clear(form) {
  for (const said of all(".is-beside", form.parentElement ?? form)) said.remove();
  for (const control of all("[aria-invalid]", form)) {
    control.removeAttribute("aria-invalid");
    control.removeAttribute("aria-describedby");
  }
}
