// @ts-check
// Questions about path data that the browser answers; those of one scene are kept with it.
const SVG = "http://www.w3.org/2000/svg";

/**
 * @typedef {object} PathAnswers
 * @property {(d: string, p: Point, rule: CanvasFillRule) => boolean} contains
 * @property {(d: string, p: Point, width: number) => boolean} isInStroke
 * @property {(d: string) => { x: number, y: number, width: number, height: number }} bounds
 */

/** @implements {PathAnswers} */
export class PathTests {
  /** @type {Map<string, Path2D>} */
  #paths = new Map();
  #scratch = /** @type {CanvasRenderingContext2D} */ (document.createElement("canvas").getContext("2d"));

  /**
   * @param {string} d
   * @param {Point} p
   * @param {CanvasFillRule} rule
   */
  contains(d, p, rule) {
    return this.#scratch.isPointInPath(this.#path(d), p.x, p.y, rule);
  }

  /**
   * @param {string} d
   * @param {Point} p
   * @param {number} width
   */
  isInStroke(d, p, width) {
    this.#scratch.lineWidth = width;
    return this.#scratch.isPointInStroke(this.#path(d), p.x, p.y);
  }

  /** @param {string} d */
  bounds(d) {
    const path = measuring();
    path.setAttribute("d", d);
    const { x, y, width, height } = path.getBBox();
    return { x, y, width, height };
  }

  /** @param {string} d */
  #path(d) {
    let path = this.#paths.get(d);
    if (!path) this.#paths.set(d, (path = new Path2D(d)));
    return path;
  }
}

/** @type {SVGPathElement | null} */
let measured = null;
function measuring() {
  if (measured) return measured;
  const svg = document.createElementNS(SVG, "svg");
  svg.setAttribute("class", "unseen");
  svg.setAttribute("aria-hidden", "true");
  measured = document.createElementNS(SVG, "path");
  svg.append(measured);
  document.body.append(svg);
  return measured;
}
