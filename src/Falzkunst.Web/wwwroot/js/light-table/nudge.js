// Arrow keys move what is picked. Keys in quick succession are gathered and sent as one move.
import { act as doAction, mm } from "../actions.js";
import { now } from "../picked.js";
import { act, boxOfItems, pickedOf } from "./placing.js";

const GATHER = 450;   // ms without a key, after which the move is sent

export class Nudge {
  #table;
  #by = null;
  #timer = 0;

  constructor(table) { this.#table = table; }

  /** The arrow keys are for what is picked, and not for the view. */
  get takes() {
    if (this.#table.canPlace) return pickedOf(this.#table.layout).length > 0;
    const key = now();
    return this.#table.canMove && key.pieces.length > 0 && this.#table.itemsOf(key).some(i => !i.locked);
  }

  step(x, y) {
    if (!this.#by) {
      this.#by = { x: 0, y: 0 };
      this.#show();
    }
    this.#by.x += x;
    this.#by.y += y;
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
    if (this.#table.canPlace) act(this.#table, 0, { x, y });
    else doAction("move", { dx: mm(x), dy: mm(y) });
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
