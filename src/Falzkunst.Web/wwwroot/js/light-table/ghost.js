// What is being moved, sized or drawn, shown over the picture until the server has done it. Built once a gesture; while the
// hand moves, only one transform changes.
const SVG = "http://www.w3.org/2000/svg";

export class Ghost {
  #svg;
  #group = null;
  #view = null;
  #map = new DOMMatrix();

  constructor(svg) { this.#svg = svg; }

  get isShown() { return this.#group !== null; }

  /** Paths with their maps to the table: { d, map, fill }. */
  show(paths) {
    this.clear();
    this.#group = document.createElementNS(SVG, "g");
    for (const { d, map, fill } of paths) {
      const path = document.createElementNS(SVG, "path");
      path.setAttribute("d", d);
      path.setAttribute("transform", new DOMMatrix(map).toString());
      path.setAttribute("fill", fill ?? "none");
      path.setAttribute("class", "ghost-path");
      this.#group.append(path);
    }
    this.#svg.append(this.#group);
    this.#place();
  }

  /** Where it is now: a map of the table. */
  move(map) {
    this.#map = map;
    this.#place();
  }

  follow(view) {
    this.#view = view.copy();
    this.#place();
  }

  clear() {
    this.#group?.remove();
    this.#group = null;
    this.#map = new DOMMatrix();
  }

  #place() {
    if (!this.#group || !this.#view) return;
    const { scale, x, y } = this.#view;
    this.#group.setAttribute("transform", new DOMMatrix([scale, 0, 0, scale, x, y]).multiply(this.#map).toString());
  }
}
