// @ts-check
// Files brought in: chosen, or dropped on the table.
import { field } from "./dom.js";
import { say } from "./notice.js";

const form = () => /** @type {HTMLFormElement | null} */ (document.getElementById("bring-in"));

document.addEventListener("alpine:init", () => {
  Alpine.data("dropTable", () => ({
    depth: /** @type {number} */ (0),
    get isOver() {
      return /** @type {{ depth: number }} */ (this).depth > 0;
    },
    /**
     * @this {{ depth: number }}
     * @param {DragEvent} event
     */
    enter(event) {
      if (event.dataTransfer?.types.includes("Files")) this.depth++;
    },
    /**
     * @this {{ depth: number }}
     * @param {DragEvent} event
     */
    leave(event) {
      if (event.dataTransfer?.types.includes("Files")) this.depth = Math.max(0, this.depth - 1);
    },
    /**
     * @this {{ depth: number }}
     * @param {DragEvent} event
     */
    drop(event) {
      this.depth = 0;
      const input = field("files");
      if (!input || !event.dataTransfer?.files.length) return;
      input.files = event.dataTransfer.files;
      htmx.trigger(form(), "brought");
    },
  }));
});

// A file chosen before the page was ready to hear of it is brought in as soon as it is.
document.addEventListener("htmx:after:init", (event) => {
  if (event.target === form() && field("files")?.files?.length) htmx.trigger(form(), "brought");
});

// A file that will be refused for its size is not sent first.
document.addEventListener("htmx:config:request", (event) => {
  const input = event.detail.ctx.sourceElement?.id === "bring-in" ? field("files") : null;
  const most = Number(input?.dataset.largest);
  const large = [...(input?.files ?? [])].find((f) => f.size > most);
  if (!large) return;
  event.preventDefault();
  form()?.reset();
  const [has, may] = [(large.size / 1e6).toFixed(1), Math.floor(most / 1e6)];
  say(`${large.name} has ${has} MB; a file may have at most ${may}. Split the drawing into parts and bring them in one by one.`);
});

// The same file may be chosen twice in a row.
document.addEventListener("htmx:after:request", (event) => {
  if (event.detail.ctx?.sourceElement?.id === "bring-in") form()?.reset();
});
