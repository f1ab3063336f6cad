// @ts-check
// The map between millimetres of the table and pixels of the screen.
export const PIXELS_PER_MM = 96 / 25.4;
const [LEAST, MOST] = [0.02, 400]; // pixels per millimetre

export class View {
  scale = PIXELS_PER_MM;
  x = 0;
  y = 0;

  /** The view in words, the same for the same view. */
  get state() {
    return `${this.scale} ${this.x} ${this.y}`;
  }

  /**
   * Pixels to millimetres.
   * @param {number} px
   * @param {number} py
   * @returns {Point}
   */
  toTable(px, py) {
    return { x: (px - this.x) / this.scale, y: (py - this.y) / this.scale };
  }

  /**
   * Millimetres to pixels.
   * @param {number} mx
   * @param {number} my
   * @returns {Point}
   */
  toScreen(mx, my) {
    return { x: mx * this.scale + this.x, y: my * this.scale + this.y };
  }

  /**
   * @param {number} dx px
   * @param {number} dy px
   */
  pan(dx, dy) {
    this.x += dx;
    this.y += dy;
  }

  /**
   * Zooms by a factor; what lies under the pixel stays there.
   * @param {number} px
   * @param {number} py
   * @param {number} factor
   */
  zoomAt(px, py, factor) {
    const to = Math.min(MOST, Math.max(LEAST, this.scale * factor));
    const by = to / this.scale;
    this.x = px - (px - this.x) * by;
    this.y = py - (py - this.y) * by;
    this.scale = to;
  }

  /**
   * Shows a box in the middle of an area, edges in pixels kept free.
   * @param {Box} box
   * @param {number} width
   * @param {number} height
   * @param {{ left: number, right: number, top: number, bottom: number }} edges
   */
  fit([minX, minY, maxX, maxY], width, height, edges) {
    const w = Math.max(1, width - edges.left - edges.right);
    const h = Math.max(1, height - edges.top - edges.bottom);
    this.scale = Math.min(MOST, Math.max(LEAST, Math.min(w / Math.max(1e-6, maxX - minX), h / Math.max(1e-6, maxY - minY))));
    this.x = edges.left + (w - (minX + maxX) * this.scale) / 2;
    this.y = edges.top + (h - (minY + maxY) * this.scale) / 2;
  }

  /** @returns {ViewState} */
  copy() {
    return { scale: this.scale, x: this.x, y: this.y };
  }
}
