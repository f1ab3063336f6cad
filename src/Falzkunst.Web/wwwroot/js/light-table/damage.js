// @ts-check
// What of a picture must be painted again: nothing but the places where something else is to be seen than before.
import { around, reachOf } from "./boxes.js";

// Lines and outlines are no broader than this beyond the paths that they run over.
const EDGE = 6; // px
// More places than this are painted as one.
const MOST = 24;

/** Remembers what was painted where. */
export class Damage {
  /** @type {string | null} */
  #look = null;
  /** @type {string[]} */
  #signs = [];
  /** @type {Box[]} */
  #boxes = [];

  /**
   * Asked for the next picture it gives the boxes that differ, null where all of it does.
   * @param {string} look what concerns the whole picture
   * @param {SceneItem[]} items
   * @param {string[]} signs one text an item of all that is seen of it
   * @param {number} scale
   * @returns {Box[] | null}
   */
  since(look, items, signs, scale) {
    const boxes = items.map(reachOf);
    const isOther = look !== this.#look;
    const differs = isOther ? [] : this.#differing(boxes, signs);
    [this.#look, this.#signs, this.#boxes] = [look, signs, boxes];
    if (isOther) return null;
    const pad = EDGE / scale;
    const wide = differs.map(([x0, y0, x1, y1]) => /** @type {Box} */ ([x0 - pad, y0 - pad, x1 + pad, y1 + pad]));
    return wide.length > MOST ? [around(wide)] : wide;
  }

  /** Nothing that was painted is there any more. */
  forget() {
    this.#look = null;
  }

  // Where an item was, and where one is now.
  /**
   * @param {Box[]} boxes
   * @param {string[]} signs
   */
  #differing(boxes, signs) {
    const differs = [];
    for (let i = 0; i < Math.max(signs.length, this.#signs.length); i++) {
      if (signs[i] === this.#signs[i]) continue;
      if (this.#boxes[i]) differs.push(this.#boxes[i]);
      if (boxes[i]) differs.push(boxes[i]);
    }
    return differs;
  }
}
