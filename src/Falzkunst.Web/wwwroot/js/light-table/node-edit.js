// @ts-check
// Nodes of the one picked line, as the server numbers them.
import { act, mm, nodesOfPick } from "../actions.js";

/** @typedef {import("./light-table.js").LightTable} LightTable */

const REACH = 8; // pixels about a node that take hold of it
/** @type {Record<string, string>} */
const KEY_WORDS = { Delete: "delete", Backspace: "delete", s: "smooth", c: "corner" };

export class NodeEdit {
  #table;
  /** @type {LineNodes} */
  #nodes = { nodes: [], handles: [] };
  #asked = 0;
  isShown = false;
  /** @type {number | null} */
  chosen = null;

  /** @param {LightTable} table */
  constructor(table) {
    this.#table = table;
  }

  /** What is drawn over the picture; null while nodes are not shown. */
  get drawn() {
    const line = this.isShown ? this.#table.sight.pickedLine() : null;
    return line && { line, ...this.#nodes, chosen: this.chosen };
  }

  /** @param {boolean} shown */
  show(shown) {
    this.isShown = shown;
    this.chosen = null;
    this.#nodes = { nodes: [], handles: [] };
    for (const b of document.querySelectorAll("[data-nodes]")) b.setAttribute("aria-pressed", String(shown));
    this.#table.redraw();
    this.reload();
  }

  /** The line has changed: its nodes are asked for again. */
  async reload() {
    const asked = ++this.#asked;
    if (!this.isShown) return;
    const nodes = await nodesOfPick();
    if (asked !== this.#asked || !this.isShown || !nodes) return;
    this.#nodes = nodes;
    if (this.chosen !== null && this.chosen >= nodes.nodes.length) this.chosen = null;
    this.#table.redraw();
  }

  /**
   * The node or handle under a place.
   * @param {TablePoint} at
   * @returns {import("./tools/bend.js").Grabbed | null}
   */
  grabbed(at) {
    const line = this.isShown ? this.#table.sight.pickedLine() : null;
    if (!line) return null;
    const isNear = (/** @type {Point} */ p) => {
      const [x, y] = line.toTable(p);
      const q = this.#table.view.toScreen(x, y);
      return Math.hypot(q.x - at.screen.x, q.y - at.screen.y) < REACH;
    };
    const node = this.#nodes.nodes.findIndex(isNear);
    if (node >= 0) return { node };
    const handle = this.#nodes.handles.find((h) => isNear(h.at));
    return handle ? { handle } : null;
  }

  /**
   * Chooses the next node, round and round.
   * @param {number} by 1 or -1
   */
  step(by) {
    const count = this.#nodes.nodes.length;
    if (count === 0) return;
    this.chosen = ((this.chosen ?? (by > 0 ? -1 : 0)) + by + count) % count;
    this.#table.redraw();
  }

  /**
   * Moves the chosen node, in millimetres of the table; false where none is chosen.
   * @param {number} dx
   * @param {number} dy
   */
  move(dx, dy) {
    const line = this.isShown && this.chosen !== null && this.#table.sight.pickedLine();
    if (!line || this.chosen === null) return false;
    const [x, y] = line.toTable(this.#nodes.nodes[this.chosen]);
    const to = line.fromTable({ x: x + dx, y: y + dy });
    // The next step goes on from here, also before the server has answered.
    this.#nodes.nodes[this.chosen] = to;
    const [toX, toY] = line.toCard(to);
    act("node-move", { node: this.chosen, x: mm(toX), y: mm(toY) });
    return true;
  }

  /**
   * What a key does to the chosen node; false where it does nothing.
   * @param {string} key
   */
  key(key) {
    const word = KEY_WORDS[key];
    if (!this.isShown || this.chosen === null || !word) return false;
    act(`node-${word}`, { node: this.chosen });
    return true;
  }

  /**
   * A touch on the line puts one more node there.
   * @param {TablePoint} at
   */
  add(at) {
    const line = this.isShown ? this.#table.sight.pickedLine() : null;
    if (!line || !this.#table.sight.isOnPickedLine(at)) return;
    const [x, y] = line.toCard(line.fromTable(at));
    act("node-add-near", { x: mm(x), y: mm(y) });
  }
}
