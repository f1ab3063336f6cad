// What the server refuses because of one field is said beside that field, and stays until it is changed.
import { say } from "./notice.js";

let count = 0;

document.addEventListener("refused", event => {
  const { field, word } = event.detail, form = event.target.closest?.("form") ?? event.target.form;
  const control = form && [...form.elements].find(e => e.name?.toLowerCase() === field.toLowerCase() && e.type !== "hidden");
  if (!control) return say(word);
  clear(form);
  const said = document.createElement("p");
  said.className = "wrong is-beside";
  said.id = `refused-${++count}`;
  said.setAttribute("role", "alert");
  said.textContent = word;
  // It stands under its field and takes no room from what is there.
  (control.closest(".fields > div, .copy-line, .pair, fieldset") ?? control.parentElement).append(said);
  control.setAttribute("aria-invalid", "true");
  control.setAttribute("aria-describedby", said.id);
  return undefined;
});

document.addEventListener("input", event => { if (event.target.form) clear(event.target.form); });
// What was done, or asked once more, is judged anew.
document.addEventListener("htmx:before:request", event => {
  const source = event.detail.ctx.sourceElement, form = source?.closest?.("form") ?? source?.form;
  if (form) clear(form);
});

function clear(form) {
  for (const said of form.parentElement.querySelectorAll(".is-beside")) said.remove();
  for (const control of form.querySelectorAll("[aria-invalid]")) {
    control.removeAttribute("aria-invalid");
    control.removeAttribute("aria-describedby");
  }
}
