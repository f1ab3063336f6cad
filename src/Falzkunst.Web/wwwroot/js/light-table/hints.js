// What an edge holds on to and how far the hand has come: two lines and a few words that are moved, not drawn anew.
export class Hints {
  #across;
  #down;
  #live;

  constructor(parent) {
    [this.#across, this.#down, this.#live] = ["hint-line is-upright", "hint-line is-level", "live-measure"].map(name => {
      const e = document.createElement("div");
      e.className = name;
      e.hidden = true;
      e.setAttribute("aria-hidden", "true");
      parent.append(e);
      return e;
    });
  }

  /** Lines { x, word } and { y, word } in millimetres of the table, and the words below. */
  show(view, lines, text) {
    place(this.#across, lines.find(l => l.x !== undefined), l => `translate(${view.toScreen(l.x, 0).x}px, 0)`);
    place(this.#down, lines.find(l => l.y !== undefined), l => `translate(0, ${view.toScreen(0, l.y).y}px)`);
    this.#live.hidden = false;
    if (this.#live.textContent !== text) this.#live.textContent = text;
  }

  clear() { for (const e of [this.#across, this.#down, this.#live]) e.hidden = true; }
}

function place(element, line, transform) {
  element.hidden = !line;
  if (!line) return;
  element.style.transform = transform(line);
  if (element.textContent !== line.word) element.textContent = line.word;
}
