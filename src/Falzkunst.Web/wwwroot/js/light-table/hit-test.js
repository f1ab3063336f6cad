// @ts-check
// What lies under the pointer, and where what is picked lies; asked of one scene.
import { around, boxOf, cornersOf } from "./boxes.js";
import { apply, inverse, then } from "./maps.js";
import { lineOf, parts } from "../picked-words.js";

/**
 * The points that stand in path data: M, L, H, V and C with absolute places.
 * @param {string} d
 */
export function placesIn(d) {
  /** @type {Point[]} */
  const corners = [];
  let [x, y] = [0, 0];
  for (const [, letter, text] of d.matchAll(/([MLHVCZ])([^MLHVCZ]*)/g)) {
    const n = (text.match(/-?[\d.]+(?:e-?\d+)?/g) ?? []).map(Number);
    if (letter === "H") for (x of n) corners.push({ x, y });
    else if (letter === "V") for (y of n) corners.push({ x, y });
    else for (let k = 0; k + 1 < n.length; k += 2) corners.push({ x: ([x, y] = [n[k], n[k + 1]])[0], y });
  }
  return corners;
}

export class HitTest {
  #scene;
  #paths;
  /** @type {Map<string, string>} */
  #papers = new Map();
  /** @type {Map<string, { x: number, y: number, width: number, height: number }>} */
  #boxes = new Map();

  /**
   * @param {Scene} scene
   * @param {import("./path-tests.js").PathAnswers} paths
   */
  constructor(scene, paths) {
    this.#scene = scene;
    this.#paths = paths;
  }

  /**
   * The topmost piece under a point of the table, or the topmost whose edge runs close by.
   * @param {SceneLayout} layout
   * @param {Point} at
   * @param {number} near mm
   */
  itemAt(layout, at, near) {
    return layout.items.findLast((item) => {
      const [minX, minY, maxX, maxY] = boxOf(item);
      if (at.x < minX - near || at.x > maxX + near || at.y < minY - near || at.y > maxY + near) return false;
      const p = apply(inverse(item.map), at);
      const paper = this.#paper(item);
      return this.#paths.contains(paper, p, "evenodd") || this.#paths.isInStroke(paper, p, 2 * near);
    });
  }

  /**
   * The topmost line of an item that runs close by a point; of some lines only, where they are given.
   * @param {SceneItem} item
   * @param {Point} at
   * @param {number} near mm
   * @param {string[]} [among]
   */
  lineAt(item, at, near, among) {
    const p = apply(inverse(item.map), at);
    const some = among && new Set(among);
    for (let i = item.lines.length - 1; i >= 0; i--) {
      const line = lineOf(item.piece, item.lines[i].id);
      if (some && !some.has(line)) continue;
      const d = this.#shape(item)[i];
      if (this.#paths.isInStroke(d, p, 2 * near)) return line;
      // A line that is picked already can be taken hold of anywhere inside it.
      if (some && this.#paths.contains(d, p, "nonzero")) return line;
    }
    return null;
  }

  /**
   * A point inside an item's outline, its openings included.
   * @param {SceneItem} item
   * @param {Point} at
   */
  isInOutline(item, at) {
    return this.#paths.contains(this.#shape(item)[0], apply(inverse(item.map), at), "nonzero");
  }

  /**
   * Path data of a line in its item's coordinates; null where it is not there.
   * @param {SceneItem} item
   * @param {string} id
   */
  pathOf(item, id) {
    const at = item.lines.findIndex((l) => l.id === id);
    return at < 0 ? null : this.#shape(item)[at];
  }

  /**
   * The lines whose every corner and handle lies within a box.
   * @param {SceneLayout} layout
   * @param {Box} box
   */
  linesWithin(layout, [minX, minY, maxX, maxY]) {
    const isIn = (/** @type {Point} */ p) => p.x >= minX && p.y >= minY && p.x <= maxX && p.y <= maxY;
    return layout.items.flatMap((item) =>
      item.lines
        .filter((_, i) => {
          const corners = placesIn(this.#shape(item)[i]);
          return corners.length > 0 && corners.every((c) => isIn(apply(item.map, c)));
        })
        .map((l) => lineOf(item.piece, l.id)),
    );
  }

  /**
   * The items that lie wholly within a box.
   * @param {SceneLayout} layout
   * @param {Box} box
   */
  within(layout, [minX, minY, maxX, maxY]) {
    return layout.items.filter((item) => {
      const [a, b, c, d] = boxOf(item);
      return a >= minX && b >= minY && c <= maxX && d <= maxY;
    });
  }

  /**
   * The upright box on the table of what is picked.
   * @param {SceneLayout} layout
   * @param {Picked} picked
   * @returns {Box}
   */
  boxOf(layout, { pieces, lines }) {
    const items = layout.items.filter((i) => pieces.includes(i.piece));
    const boxes = lines.length ? items.flatMap((i) => numbersOf(i, lines).map((n) => this.#lineBox(i, n))) : items.map(boxOf);
    return boxes.length === 0 ? [0, 0, 0, 0] : around(boxes);
  }

  /**
   * What is picked as paths for a ghost.
   * @param {SceneLayout} layout
   * @param {Picked} picked
   * @returns {GhostPath[]}
   */
  paths(layout, { pieces, lines }) {
    const items = layout.items.filter((i) => pieces.includes(i.piece));
    if (lines.length === 0) return this.papers(items);
    return items.map((item) => ({
      d: numbersOf(item, lines)
        .map((n) => this.#shape(item)[n])
        .join(""),
      map: item.map,
    }));
  }

  /**
   * Whole items as paths for a ghost.
   * @param {SceneItem[]} items
   * @returns {GhostPath[]}
   */
  papers(items) {
    return items.map((item) => ({ d: this.#paper(item), map: item.map, fill: item.fill }));
  }

  /**
   * A line with the ways between its own coordinates, the table's and the card's; null where the item has no such line.
   * @param {SceneItem} item
   * @param {string} line
   * @returns {LineOnTable | null}
   */
  line(item, line) {
    const { id } = parts(line);
    if (!item.lines.some((l) => l.id === id)) return null;
    return this.maps(item);
  }

  /**
   * The ways between an item's own coordinates, the table's and the card's.
   * @param {SceneItem} item
   * @returns {LineOnTable}
   */
  maps(item) {
    const back = inverse(item.map);
    const pair = (/** @type {Point} */ { x, y }) => /** @type {[number, number]} */ ([x, y]);
    return {
      map: item.map,
      cardMap: then(inverse(item.place), item.map),
      toTable: (p) => pair(apply(item.map, p)),
      fromTable: (p) => apply(back, p),
      toCard: (p) => pair(apply(item.place, p)),
    };
  }

  /**
   * Boxes of the aids that lie on the card.
   * @param {SceneLayout} layout
   * @returns {Box[]}
   */
  aids(layout) {
    return layout.loose
      .filter((l) => l.op === "aid")
      .map((l) => this.#paths.bounds(l.path))
      .map((b) => [b.x, b.y, b.x + b.width, b.y + b.height]);
  }

  /** @param {SceneItem} item */
  #shape(item) {
    return this.#scene.shapes[item.shape];
  }

  // Outline and openings in one path.
  /** @param {SceneItem} item */
  #paper(item) {
    let paper = this.#papers.get(item.shape);
    if (paper === undefined) {
      paper = item.lines.map((l, i) => (l.role === "i" ? "" : this.#shape(item)[i])).join("");
      this.#papers.set(item.shape, paper);
    }
    return paper;
  }

  /**
   * @param {SceneItem} item
   * @param {number} i
   */
  #lineBox(item, i) {
    const key = `${item.shape} ${i}`;
    let box = this.#boxes.get(key);
    if (!box) this.#boxes.set(key, (box = this.#paths.bounds(this.#shape(item)[i])));
    return cornersOf(box, item.map);
  }
}

/**
 * Which of an item's lines are among some, by their numbers.
 * @param {SceneItem} item
 * @param {string[]} lines
 */
function numbersOf(item, lines) {
  const some = new Set(lines);
  return item.lines.flatMap((l, i) => (some.has(lineOf(item.piece, l.id)) ? [i] : []));
}
