// Small parts of pages: notices that close, files dropped on the table.
document.addEventListener("click", event => {
  if (event.target.closest("[data-dismiss]")) event.target.closest(".notice").remove();
});

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

// The same file may be chosen twice in a row.
document.addEventListener("htmx:after:request", event => {
  const form = event.detail.ctx?.sourceElement;
  if (form?.id === "bring-in") form.reset();
});
