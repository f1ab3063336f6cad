// What is being moved, sized or drawn, shown over the picture until the server has done it. What is moved is painted once a
// gesture onto a canvas of its own; while the hand moves, only that canvas's transform changes.
import { element } from "./svg.js";

const MOST_PIXELS = 4096;   // of a canvas, each way
const EDGE = 4;             // pixels round what is painted, for the width of its lines

export class Ghost {
  #canvas;
  #svg;
  #view;
  #paths = null;
  #box = null;
  #painted = null;          // the view that it was painted under
  #map = new DOMMatrix();

  constructor(canvas, svg, view) {
    this.#canvas = canvas;
    this.#svg = svg;
    this.#view = view;
  }

  get isShown() { return this.#paths !== null; }

  /** Paths with their maps to the table, { d, map, fill }, and the box of them all on the table. */
  show(paths, box) {
    this.clear();
    this.#paths = paths;
    this.#box = box;
    this.#paint();
  }

  /** One line that changes its course as the hand moves. */
  preview(d, map) {
    this.#svg.replaceChildren();
    const { scale, x, y } = this.#view;
    element(this.#svg, "path", { d, transform: new DOMMatrix([scale, 0, 0, scale, x, y]).multiply(new DOMMatrix(map)).toString(), class: "ghost-path" });
  }

  /** Where what is shown would come to lie, as a map of the table, or that it may not; null for neither. */
  landing(map, isRefused = false) {
    this.#svg.replaceChildren();
    if (!map || !this.#paths) return;
    const { scale, x, y } = this.#view, base = new DOMMatrix([scale, 0, 0, scale, x, y]).multiply(map);
    for (const { d, map: own } of this.#paths)
      element(this.#svg, "path", { d, transform: base.multiply(new DOMMatrix(own)).toString(), class: isRefused ? "ghost-path is-refused" : "ghost-path is-landing" });
  }

  /** Where it is now: a map of the table. */
  move(map) {
    this.#map = map;
    this.#place();
  }

  /** The view has changed under it. */
  follow() {
    if (this.isShown) this.#place();
  }

  clear() {
    this.#paths = null;
    this.#map = new DOMMatrix();
    this.#canvas.hidden = true;
    this.#svg.replaceChildren();
  }

  #paint() {
    const { scale, x, y } = this.#painted = this.#view.copy();
    const [minX, minY, maxX, maxY] = this.#box;
    const width = Math.min(MOST_PIXELS, Math.ceil((maxX - minX) * scale) + 2 * EDGE), height = Math.min(MOST_PIXELS, Math.ceil((maxY - minY) * scale) + 2 * EDGE);
    Object.assign(this.#canvas, { width: width * devicePixelRatio, height: height * devicePixelRatio, hidden: false });
    this.#canvas.style.width = `${width}px`;
    this.#canvas.style.height = `${height}px`;
    const g = this.#canvas.getContext("2d");
    const base = new DOMMatrix([devicePixelRatio, 0, 0, devicePixelRatio, 0, 0]).translate(EDGE, EDGE).scale(scale).translate(-minX, -minY);
    g.strokeStyle = "#2D6CDF";
    for (const { d, map, fill } of this.#paths) {
      g.setTransform(base.multiply(new DOMMatrix(map)));
      const path = new Path2D(d);
      if (fill) {
        g.globalAlpha = 0.55;
        g.fillStyle = fill;
        g.fill(path, "evenodd");
        g.globalAlpha = 1;
      }
      g.lineWidth = 1.6 / (scale * Math.sqrt(Math.abs(map[0] * map[3] - map[1] * map[2])));
      g.stroke(path);
    }
    this.#place();
  }

  #place() {
    if (!this.#painted) return;
    const { scale, x, y } = this.#view, [minX, minY] = this.#box;
    this.#canvas.style.transform = new DOMMatrix([scale, 0, 0, scale, x, y]).multiply(this.#map)
      .translate(minX - EDGE / this.#painted.scale, minY - EDGE / this.#painted.scale).scale(1 / this.#painted.scale).toString();
  }
}
