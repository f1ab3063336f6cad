// Every request of htmx says which revision the page shows and what is selected, so that the server can refuse a stale edit.
const token = document.querySelector('meta[name="falzkunst-token"]')?.content ?? "";

document.addEventListener("htmx:config:request", event => {
  const headers = event.detail.ctx.request.headers;
  headers["X-Falzkunst-Token"] = token;
  if (document.body.dataset.head) headers["X-Project-Head"] = document.body.dataset.head;
  if (document.body.dataset.selected) headers["X-Selected"] = document.body.dataset.selected;
});

document.addEventListener("project-shown", event => {
  const head = String(event.detail.head);
  if (head === document.body.dataset.head) return;
  document.body.dataset.head = head;
  document.querySelector("light-table")?.reload();
});

// The server cannot be reached, or answered with something that is no page of ours.
document.addEventListener("htmx:error", () => {
  const notice = document.getElementById("notice");
  if (!notice) return;
  const box = document.createElement("div");
  box.className = "notice";
  box.setAttribute("role", "alert");
  box.textContent = "The server did not answer. Nothing was changed; try once more in a moment.";
  notice.replaceChildren(box);
});
