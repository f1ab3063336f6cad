// @ts-check
// The command line: type what to do, with suggestions while typing. The server reads the command.
import { all, dialog as dialogOf } from "./dom.js";
import { table } from "./picked.js";

const dialog = dialogOf("commands");
if (dialog) listen(dialog);

/** @param {HTMLDialogElement} dialog */
function listen(dialog) {
  const input = /** @type {HTMLInputElement} */ (dialog.querySelector("input"));
  const list = /** @type {HTMLElement} */ (dialog.querySelector("ul"));
  const word = /** @type {HTMLElement} */ (dialog.querySelector(".wrong"));
  const items = all("li", list);
  let chosen = -1;

  const fits = () => items.filter((i) => !i.hidden);
  const choose = (/** @type {number} */ to) => {
    chosen = to;
    for (const i of items) i.setAttribute("aria-selected", "false");
    const item = fits()[chosen];
    item?.setAttribute("aria-selected", "true");
    item?.scrollIntoView({ block: "nearest" });
    input.setAttribute("aria-activedescendant", item?.id ?? "");
  };
  const filter = () => {
    const typed = input.value.trim().toLowerCase();
    const isOneWord = !/\s/.test(typed);
    const isNamed = (/** @type {HTMLElement} */ { dataset: { name = "" } }) => name.startsWith(typed) || typed.startsWith(`${name} `);
    // What a command does is searched only where no command is called so.
    const anyNamed = items.some(isNamed);
    const first = typed.split(/\s/)[0];
    const isMeant = (/** @type {HTMLElement} */ { dataset: { words = "" } }) =>
      words.split(" ").some((w) => w && (w === first || w.startsWith(typed)));
    const anyMeant = !anyNamed && items.some(isMeant);
    const isFound = (/** @type {HTMLElement} */ item) =>
      anyNamed ? isNamed(item) : anyMeant ? isMeant(item) : isOneWord && (item.dataset.help ?? "").toLowerCase().includes(typed);
    for (const item of items) item.hidden = typed !== "" && !isFound(item);
    choose(-1);
    word.textContent = "";
  };
  // A suggestion is taken as its name; what it takes besides is typed.
  const take = (/** @type {HTMLElement} */ item) => {
    if (item.dataset.href) {
      location.href = item.dataset.href;
      return;
    }
    input.value = item.dataset.takes ? `${item.dataset.name} ` : (item.dataset.name ?? "");
    filter();
    input.focus();
  };
  dialog.addEventListener("open-commands", () => {
    if (dialog.open) return;
    table()?.nudge.send();
    input.value = "";
    filter();
    dialog.showModal();
    input.focus();
  });
  input.addEventListener("input", filter);
  input.addEventListener("keydown", (event) => {
    const found = fits();
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (by) choose((chosen + by + found.length) % Math.max(1, found.length));
    else if ((event.key === "Tab" || event.key === "Enter") && found[chosen]) take(found[chosen]);
    else return;
    event.preventDefault();
  });
  list.addEventListener("click", (event) => {
    const item = event.target instanceof Element ? event.target.closest("li") : null;
    if (item) take(item);
  });
  dialog.querySelector("form")?.addEventListener("submit", (event) => {
    event.preventDefault();
    const place = items.find((i) => i.dataset.href && i.dataset.name === input.value.trim().toLowerCase());
    if (place) take(place);
  });
  // What could not be done is said here, whatever field of a form it would stand beside.
  let refused = "";
  dialog.addEventListener("refused", (event) => {
    refused = /** @type {CustomEvent<{ word: string }>} */ (event).detail.word;
  });
  document.addEventListener("htmx:after:request", (event) => {
    const { sourceElement, response } = event.detail.ctx ?? {};
    if (sourceElement?.closest("#commands") !== dialog) return;
    if (response && response.status < 400) dialog.close();
    else word.textContent = refused || (document.querySelector("#notice p")?.textContent ?? "That could not be done.");
    if (word.textContent) document.querySelector("#notice .notice")?.remove();
    refused = "";
  });
}
