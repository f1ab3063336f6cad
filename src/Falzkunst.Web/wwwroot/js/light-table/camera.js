// @ts-check
// Brings things into view.
const EDGES = { left: 44, right: 44, top: 66, bottom: 46 }; // px
const MOST_CARD = 300; // px that a card over the table takes from each side
const NARROW = 720; // px; on narrower windows cards lie below
const [NEAREST, FARTHEST] = [3, 9]; // mm seen to each side of a place
const AROUND = 0.7; // of a place's reach, seen to each side of it

export class Camera {
  #table;
  #view;
  #changed;

  /**
   * @param {HTMLElement} table
   * @param {import("./view.js").View} view
   * @param {() => void} changed
   */
  constructor(table, view, changed) {
    this.#table = table;
    this.#view = view;
    this.#changed = changed;
  }

  /**
   * A box in full, beside what lies over the table.
   * @param {Box} box
   */
  fit(box) {
    const edges = { ...EDGES };
    const isCovered = document.querySelector(".over-card") && innerWidth > NARROW;
    if (isCovered) edges.left = edges.right = Math.min(MOST_CARD, this.#table.clientWidth / 3);
    this.#view.fit(box, this.#table.clientWidth, this.#table.clientHeight, edges);
    this.#changed();
  }

  /** @param {number} factor */
  zoom(factor) {
    this.#view.zoomAt(this.#table.clientWidth / 2, this.#table.clientHeight / 2, factor);
    this.#changed();
  }

  /**
   * A place from near by, with all of its reach in view.
   * @param {{ x: number, y: number, reach?: number }} place
   */
  lookAt({ x, y, reach = 0 }) {
    const half = Math.min(FARTHEST, Math.max(NEAREST, reach * AROUND));
    this.#view.fit([x - half, y - half, x + half, y + half], this.#table.clientWidth, this.#table.clientHeight, EDGES);
    this.#changed();
  }

  /**
   * A place of the table into the middle.
   * @param {number} x
   * @param {number} y
   */
  centre(x, y) {
    const p = this.#view.toScreen(x, y);
    this.#view.pan(this.#table.clientWidth / 2 - p.x, this.#table.clientHeight / 2 - p.y);
    this.#changed();
  }
}
