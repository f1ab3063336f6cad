// @ts-check
// What is being moved, sized or drawn, shown over the picture until the server has done it. What is moved is painted once a
// gesture onto a canvas of its own; while the hand moves, only that canvas's transform changes.
import { scaleOf } from "./maps.js";
import { element } from "./svg.js";

const MOST_PIXELS = 4096; // of a canvas, each way
const EDGE = 4; // pixels round what is painted, for the width of its lines

/** @typedef {import("./view.js").View} View */

export class Ghost {
  #canvas;
  #svg;
  #view;
  /** @type {{ paths: GhostPath[], box: Box, painted: ViewState } | null} */
  #shown = null;
  #map = new DOMMatrix();
  /** @type {(() => void) | null} draws again what stands in vectors */
  #again = null;

  /**
   * @param {HTMLCanvasElement} canvas
   * @param {SVGSVGElement} svg
   * @param {View} view
   */
  constructor(canvas, svg, view) {
    this.#canvas = canvas;
    this.#svg = svg;
    this.#view = view;
  }

  /**
   * @param {GhostPath[]} paths with their maps to the table
   * @param {Box} box of them all on the table
   */
  show(paths, box) {
    this.clear();
    this.#shown = { paths, box, painted: this.#view.copy() };
    this.#paint(paths, box);
    this.#place();
  }

  /**
   * One line that changes its course as the hand moves.
   * @param {string} d
   * @param {Map6} map to the table
   */
  preview(d, map) {
    this.#svg.replaceChildren();
    element(this.#svg, "path", { d, transform: this.#screen.multiply(new DOMMatrix(map)).toString(), class: "ghost-path" });
  }

  /**
   * Words while they are typed: their letters, and their caret or what is selected of them.
   * @param {string} d path data of the letters; none while they are those that are painted
   * @param {Map6} map to the table
   * @param {{ caret: string, selection: string } | null} marks
   */
  written(d, map, marks) {
    this.#again = () => this.written(d, map, marks);
    this.#svg.replaceChildren();
    const transform = this.#screen.multiply(new DOMMatrix(map)).toString();
    if (marks?.selection) element(this.#svg, "path", { d: marks.selection, transform, class: "ghost-selection" });
    if (d) element(this.#svg, "path", { d, transform, class: "ghost-path" });
    if (marks?.caret) element(this.#svg, "path", { d: marks.caret, transform, class: "ghost-caret" });
  }

  /**
   * Where what is shown would come to lie, as a map of the table, or that it may not; null for neither.
   * @param {DOMMatrix | null} map
   * @param {boolean} isRefused
   */
  landing(map, isRefused = false) {
    this.#svg.replaceChildren();
    if (!map || !this.#shown) return;
    const base = this.#screen.multiply(map);
    const kind = isRefused ? "ghost-path is-refused" : "ghost-path is-landing";
    for (const { d, map: own } of this.#shown.paths)
      element(this.#svg, "path", { d, transform: base.multiply(new DOMMatrix(own)).toString(), class: kind });
  }

  /**
   * Where it is now: a map of the table.
   * @param {DOMMatrix} map
   */
  move(map) {
    this.#map = map;
    this.#place();
  }

  /** The view has changed under it. */
  follow() {
    this.#again?.();
    this.#place();
  }

  clear() {
    this.#again = null;
    this.#shown = null;
    this.#map = new DOMMatrix();
    this.#canvas.hidden = true;
    this.#svg.replaceChildren();
  }

  get #screen() {
    const { scale, x, y } = this.#view;
    return new DOMMatrix([scale, 0, 0, scale, x, y]);
  }

  /**
   * @param {GhostPath[]} paths
   * @param {Box} box
   */
  #paint(paths, [minX, minY, maxX, maxY]) {
    const { scale } = this.#view;
    const side = (/** @type {number} */ mm) => Math.min(MOST_PIXELS, Math.ceil(mm * scale) + 2 * EDGE);
    const [width, height] = [side(maxX - minX), side(maxY - minY)];
    Object.assign(this.#canvas, { width: width * devicePixelRatio, height: height * devicePixelRatio, hidden: false });
    this.#canvas.style.width = `${width}px`;
    this.#canvas.style.height = `${height}px`;
    const g = /** @type {CanvasRenderingContext2D} */ (this.#canvas.getContext("2d"));
    const base = new DOMMatrix([devicePixelRatio, 0, 0, devicePixelRatio, 0, 0]).translate(EDGE, EDGE).scale(scale).translate(-minX, -minY);
    g.strokeStyle = "#2D6CDF";
    for (const { d, map, fill } of paths) {
      g.setTransform(base.multiply(new DOMMatrix(map)));
      const path = new Path2D(d);
      if (fill) {
        g.globalAlpha = 0.55;
        g.fillStyle = fill;
        g.fill(path, "evenodd");
        g.globalAlpha = 1;
      }
      g.lineWidth = 1.6 / (scale * scaleOf(map));
      g.stroke(path);
    }
  }

  #place() {
    if (!this.#shown) return;
    const { box, painted } = this.#shown;
    this.#canvas.style.transform = this.#screen
      .multiply(this.#map)
      .translate(box[0] - EDGE / painted.scale, box[1] - EDGE / painted.scale)
      .scale(1 / painted.scale)
      .toString();
  }
}
