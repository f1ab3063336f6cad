// @ts-check
// What an edge holds on to and how far the hand has come: two lines and a few words that are moved, not drawn anew. They stay
// where they are when they are not seen, so that no layer comes and goes while the hand moves.
const READ = 70; // ms for which words stand before others take their place; nobody reads faster, and each change is painted

export class Hints {
  #written = 0;
  #later = 0;
  #across;
  #down;
  #live;

  /** @param {HTMLElement} parent */
  constructor(parent) {
    const made = (/** @type {string} */ name) => {
      const e = document.createElement("div");
      e.className = `hint ${name}`;
      e.setAttribute("aria-hidden", "true");
      parent.append(e);
      return e;
    };
    this.#across = { bar: made("is-upright"), label: made("is-label") };
    this.#down = { bar: made("is-level"), label: made("is-label") };
    this.#live = made("is-live");
  }

  /**
   * @param {import("./view.js").View} view
   * @param {Hint[]} lines in millimetres of the table
   * @param {string} text the words below
   */
  show(view, lines, text) {
    const across = lines.find((l) => l.x !== undefined);
    const down = lines.find((l) => l.y !== undefined);
    place(this.#across, across, { x: view.toScreen(across?.x ?? 0, 0).x, y: 0 }, { x: 5, y: 34 });
    place(this.#down, down, { x: 0, y: view.toScreen(0, down?.y ?? 0).y }, { x: 44, y: 2 });
    this.#live.classList.add("is-seen");
    clearTimeout(this.#later);
    const wait = READ - (performance.now() - this.#written);
    // The last words of a gesture are written in any case.
    if (wait > 0) this.#later = setTimeout(() => this.#say(text), wait);
    else this.#say(text);
  }

  clear() {
    for (const e of [...Object.values(this.#across), ...Object.values(this.#down), this.#live]) e.classList.remove("is-seen");
  }

  /** @param {string} text */
  #say(text) {
    this.#written = performance.now();
    write(this.#live, text);
  }
}

/**
 * @param {{ bar: HTMLElement, label: HTMLElement }} of
 * @param {Hint | undefined} line
 * @param {Point} at
 * @param {Point} beside where the label stands from there
 */
function place({ bar, label }, line, at, beside) {
  bar.classList.toggle("is-seen", Boolean(line));
  label.classList.toggle("is-seen", Boolean(line));
  if (!line) return;
  bar.style.transform = `translate(${at.x}px, ${at.y}px)`;
  label.style.transform = `translate(${at.x + beside.x}px, ${at.y + beside.y}px)`;
  write(label, line.word);
}

/**
 * @param {HTMLElement} element
 * @param {string} text
 */
function write(element, text) {
  if (element.textContent !== text) element.textContent = text;
}
