// @ts-check
// What is seen under the present view: hit tests with reaches in pixels, about the layout that is shown.
import { now } from "../picked.js";
import { HitTest } from "./hit-test.js";
import { PathTests } from "./path-tests.js";

const [PIECE_REACH, LINE_REACH, NODE_REACH] = [5, 6, 8]; // px within which a touch is on it

export class Sight {
  #store;
  #view;
  /** @type {HitTest} */
  #hits;

  /**
   * @param {import("./scene-store.js").SceneStore} store
   * @param {import("./view.js").View} view
   */
  constructor(store, view) {
    this.#store = store;
    this.#view = view;
  }

  /** Another scene has come. */
  look() {
    this.#hits = new HitTest(this.#store.loaded, new PathTests());
  }

  /** @param {Picked} key */
  itemsOf(key) {
    return this.#store.layout.items.filter((i) => key.pieces.includes(i.piece));
  }

  /** @param {Point} at */
  itemAt(at) {
    return this.#hits.itemAt(this.#store.layout, at, PIECE_REACH / this.#view.scale);
  }

  /**
   * @param {Point} at
   * @param {SceneItem} item
   * @param {string[]} [among]
   */
  lineAt(at, item, among) {
    return this.#hits.lineAt(item, at, LINE_REACH / this.#view.scale, among);
  }

  /**
   * Path data of a line in its item's coordinates; null where it is not there.
   * @param {SceneItem} item
   * @param {string} id
   */
  pathOf(item, id) {
    return this.#hits.pathOf(item, id);
  }

  /** @param {Box} box */
  linesWithin(box) {
    return this.#hits.linesWithin(this.#store.layout, box);
  }

  /**
   * @param {Point} at
   * @param {SceneItem} item
   */
  isInOutline(at, item) {
    return this.#hits.isInOutline(item, at);
  }

  /** @param {Point} at */
  isOnPickedLine(at) {
    const key = now();
    return this.itemsOf(key).some((item) => this.#hits.lineAt(item, at, NODE_REACH / this.#view.scale, key.lines) !== null);
  }

  /** @param {Box} box */
  itemsWithin(box) {
    return this.#hits.within(this.#store.layout, box);
  }

  /** @param {Picked} key */
  boxOfPick(key) {
    return this.#hits.boxOf(this.#store.layout, key);
  }

  /** @param {Picked} key */
  pathsOfPick(key) {
    return this.#hits.paths(this.#store.layout, key);
  }

  /** @param {SceneItem[]} items */
  papers(items) {
    return this.#hits.papers(items);
  }

  get aidBoxes() {
    return this.#hits.aids(this.#store.layout);
  }

  /**
   * One piece is sized along its own edges, anything else along the card's.
   * @param {Picked} key
   */
  sizeOfPick(key) {
    const [item] = this.itemsOf(key);
    if (key.lines.length === 0 && key.pieces.length === 1) return item.size;
    const [minX, minY, maxX, maxY] = this.boxOfPick(key);
    return { width: maxX - minX, height: maxY - minY };
  }

  /**
   * The ways between a piece's coordinates, the table's and the card's; null where it is not there.
   * @param {string} piece
   */
  mapsOf(piece) {
    const item = this.#store.layout.items.find((i) => i.piece === piece);
    return item ? this.#hits.maps(item) : null;
  }

  /** The one picked line with its maps, or null. */
  pickedLine() {
    const key = now();
    const [item] = this.itemsOf(key);
    return item && key.lines.length === 1 ? this.#hits.line(item, key.lines[0]) : null;
  }
}
