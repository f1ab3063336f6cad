// The command line: type what to do, with suggestions while typing. The server reads the command.
const dialog = document.getElementById("commands");
if (dialog) {
  const input = dialog.querySelector("input"), list = dialog.querySelector("ul"), word = dialog.querySelector(".wrong");
  const items = [...list.querySelectorAll("li")];
  let chosen = -1;

  const fits = () => items.filter(i => !i.hidden);
  const choose = to => {
    chosen = to;
    items.forEach(i => i.setAttribute("aria-selected", "false"));
    const item = fits()[chosen];
    if (item) {
      item.setAttribute("aria-selected", "true");
      item.scrollIntoView({ block: "nearest" });
    }
    input.setAttribute("aria-activedescendant", item?.id ?? "");
  };
  const filter = () => {
    const typed = input.value.trim().toLowerCase(), words = typed.split(/\s+/);
    const isNamed = ({ dataset: { name } }) => name.startsWith(typed) || typed.startsWith(`${name} `);
    // What a command does is searched only where no command is called so.
    const anyNamed = items.some(isNamed);
    for (const item of items) item.hidden = typed !== "" && !(anyNamed ? isNamed(item) : words.length === 1 && item.dataset.help.toLowerCase().includes(typed));
    choose(-1);
    word.textContent = "";
  };
  dialog.addEventListener("open-commands", () => {
    if (dialog.open) return;
    document.querySelector("light-table")?.nudge?.send();
    input.value = "";
    filter();
    dialog.showModal();
    input.focus();
  });
  input.addEventListener("input", filter);
  input.addEventListener("keydown", event => {
    const all = fits();
    if (event.key === "ArrowDown" || event.key === "ArrowUp") choose((chosen + (event.key === "ArrowDown" ? 1 : -1) + all.length) % Math.max(1, all.length));
    else if ((event.key === "Tab" || event.key === "Enter") && chosen >= 0 && all[chosen]) take(all[chosen]);
    else return;
    event.preventDefault();
  });
  list.addEventListener("click", event => {
    const item = event.target.closest("li");
    if (item) take(item);
  });
  // A suggestion is taken as its name; what it takes besides is typed.
  const take = item => {
    input.value = item.dataset.takes ? `${item.dataset.name} ` : item.dataset.name;
    filter();
    input.focus();
  };
  dialog.querySelector("form").addEventListener("submit", event => event.preventDefault());
  document.addEventListener("htmx:after:request", event => {
    const { sourceElement, response } = event.detail.ctx ?? {};
    if (sourceElement?.closest("#commands") !== dialog) return;
    if (response?.status < 400) dialog.close();
    else word.textContent = document.querySelector("#notice p")?.textContent ?? "That could not be done.";
  });
}
