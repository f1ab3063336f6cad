// What an edge holds on to and how far the hand has come: two lines and a few words that are moved, not drawn anew. They stay
// where they are when they are not seen, so that no layer comes and goes while the hand moves.
const READ = 70;   // ms for which words stand before others take their place; nobody reads faster, and each change is painted

export class Hints {
  #written = 0;
  #later = 0;
  #lines;
  #labels;
  #live;

  constructor(parent) {
    const made = name => {
      const e = document.createElement("div");
      e.className = `hint ${name}`;
      e.setAttribute("aria-hidden", "true");
      parent.append(e);
      return e;
    };
    this.#lines = { x: made("is-upright"), y: made("is-level") };
    this.#labels = { x: made("is-label"), y: made("is-label") };
    this.#live = made("is-live");
  }

  /** Lines { x, word } and { y, word } in millimetres of the table, and the words below. */
  show(view, lines, text) {
    this.#place("x", lines.find(l => l.x !== undefined), l => [view.toScreen(l.x, 0).x, 0, 5, 34]);
    this.#place("y", lines.find(l => l.y !== undefined), l => [0, view.toScreen(0, l.y).y, 44, 2]);
    this.#live.classList.add("is-seen");
    clearTimeout(this.#later);
    const wait = READ - (performance.now() - this.#written);
    // The last words of a gesture are written in any case.
    if (wait > 0) this.#later = setTimeout(() => this.#say(text), wait);
    else this.#say(text);
  }

  #say(text) {
    this.#written = performance.now();
    write(this.#live, text);
  }

  clear() { for (const e of [...Object.values(this.#lines), ...Object.values(this.#labels), this.#live]) e.classList.remove("is-seen"); }

  #place(axis, line, at) {
    const [bar, label] = [this.#lines[axis], this.#labels[axis]];
    bar.classList.toggle("is-seen", Boolean(line));
    label.classList.toggle("is-seen", Boolean(line));
    if (!line) return;
    const [x, y, dx, dy] = at(line);
    bar.style.transform = `translate(${x}px, ${y}px)`;
    label.style.transform = `translate(${x + dx}px, ${y + dy}px)`;
    write(label, line.word);
  }
}

function write(element, text) {
  if (element.textContent !== text) element.textContent = text;
}
