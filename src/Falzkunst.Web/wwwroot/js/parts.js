// Small parts of pages: notices that close, files dropped on the table.
import { say } from "./notice.js";

document.addEventListener("click", event => {
  if (event.target.closest("[data-dismiss]")) event.target.closest(".notice").remove();
});

// A field keeps what was typed in it while the page around it is renewed; where nothing was typed since it got the focus, it
// shows the new value like any other.
let atFocus = null;
document.addEventListener("focusin", event => { atFocus = event.target.value; });
document.addEventListener("htmx:after:swap", () => {
  const field = document.activeElement;
  if (!field?.matches("input:not([type=radio], [type=checkbox], [type=file])") || field.value !== atFocus || field.value === field.defaultValue) return;
  atFocus = field.value = field.defaultValue;
  field.select();
});

// Dialogs that buttons open, and close again with a choice.
document.addEventListener("click", event => {
  const opens = event.target.closest("[data-opens]"), closes = event.target.closest("[data-closes]");
  if (opens) document.getElementById(opens.dataset.opens).showModal();
  if (closes) document.getElementById(closes.dataset.closes).close();
});

// Nothing that comes in later is Alpine's; without its observer a frame of the table, and a ledger renewed, cost less.
document.addEventListener("alpine:initialized", () => Alpine.stopObservingMutations());

document.addEventListener("alpine:init", () => {
  Alpine.data("dropTable", () => ({
    depth: 0,
    get isOver() { return this.depth > 0; },
    enter(event) {
      if (event.dataTransfer?.types.includes("Files")) this.depth++;
    },
    leave(event) {
      if (event.dataTransfer?.types.includes("Files")) this.depth = Math.max(0, this.depth - 1);
    },
    drop(event) {
      this.depth = 0;
      const input = document.getElementById("files");
      if (!input || !event.dataTransfer?.files.length) return;
      input.files = event.dataTransfer.files;
      htmx.trigger(document.getElementById("bring-in"), "brought");
    },
  }));
});

// A file chosen before the page was ready to hear of it is brought in as soon as it is.
document.addEventListener("htmx:after:init", event => {
  if (event.target.id === "bring-in" && document.getElementById("files").files.length) htmx.trigger(event.target, "brought");
});

// A file that will be refused for its size is not sent first.
document.addEventListener("htmx:config:request", event => {
  const input = event.detail.ctx.sourceElement?.id === "bring-in" && document.getElementById("files");
  const large = input && [...input.files].find(f => f.size > Number(input.dataset.largest));
  if (!large) return;
  event.preventDefault();
  input.form.reset();
  say(`${large.name} has ${(large.size / 1e6).toFixed(1)} MB; a file may have at most 20. Split the drawing into parts and bring them in one by one.`);
});

// The same file may be chosen twice in a row.
document.addEventListener("htmx:after:request", event => {
  const form = event.detail.ctx?.sourceElement;
  if (form?.id === "bring-in") form.reset();
});
