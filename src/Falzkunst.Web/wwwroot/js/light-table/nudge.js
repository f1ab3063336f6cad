// @ts-check
// Arrow keys move what is picked. Keys in quick succession are gathered and sent as one move.
import { act, mm } from "../actions.js";
import { now } from "../picked.js";
import { boxOfItems, pickedOf } from "./copies.js";
import { movePicked } from "./tools/place.js";

const GATHER = 450; // ms without a key, after which the move is sent

export class Nudge {
  #table;
  /** @type {Point | null} */
  #by = null;
  #timer = 0;

  /** @param {import("./light-table.js").LightTable} table */
  constructor(table) {
    this.#table = table;
  }

  /** The arrow keys are for what is picked, and not for the view. */
  get takes() {
    if (this.#table.canPlace) return pickedOf(this.#table.layout).length > 0;
    const key = now();
    return this.#table.canMove && key.pieces.length > 0 && this.#table.sight.itemsOf(key).some((i) => !i.locked);
  }

  /**
   * @param {number} x mm
   * @param {number} y mm
   */
  step(x, y) {
    if (!this.#by) this.#show();
    this.#by = { x: (this.#by?.x ?? 0) + x, y: (this.#by?.y ?? 0) + y };
    this.#table.ghost.move(new DOMMatrix([1, 0, 0, 1, this.#by.x, this.#by.y]));
    this.#table.hint([], `${this.#table.length(this.#by.x)}, ${this.#table.length(this.#by.y)}`);
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => this.send(), GATHER);
  }

  /** Sends what was gathered; whatever is done next comes after it. */
  send() {
    clearTimeout(this.#timer);
    if (!this.#by) return;
    const { x, y } = this.#by;
    this.#by = null;
    this.#table.hint(null);
    if (this.#table.canPlace) movePicked(this.#table, 0, { x, y });
    else act("move", { dx: mm(x), dy: mm(y) });
  }

  /** A new picture shows the move itself. */
  forget() {
    if (this.#by) this.#show();
  }

  #show() {
    const items = pickedOf(this.#table.layout);
    if (this.#table.canPlace) this.#table.showGhostOf(items, boxOfItems(items));
    else this.#table.showGhost(now());
  }
}
