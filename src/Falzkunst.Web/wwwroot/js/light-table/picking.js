// What lies under the pointer, and where what is picked lies; asked of one scene.
import { around, boxOf, cornersOf } from "./boxes.js";
import { nearestOn, parse } from "./nodes.js";
import { lineOf, parts } from "../picked.js";

const SVG = "http://www.w3.org/2000/svg";

export class Picking {
  #scene;
  #papers = new Map();
  #boxes = new Map();
  #scratch = document.createElement("canvas").getContext("2d");

  constructor(scene) { this.#scene = scene; }

  /** The topmost piece under a point of the table, or the topmost whose line runs close by. */
  itemAt(layout, at, near) {
    return [...layout.items].reverse().find(item => {
      const [minX, minY, maxX, maxY] = boxOf(item);
      if (at.x < minX - near || at.x > maxX + near || at.y < minY - near || at.y > maxY + near) return false;
      const p = own(item, at), paper = this.#paper(item);
      this.#scratch.lineWidth = 2 * near;
      return this.#scratch.isPointInPath(paper, p.x, p.y, "evenodd") || this.#scratch.isPointInStroke(paper, p.x, p.y);
    });
  }

  /** The topmost line of an item that runs close by a point; of some lines only, where they are given. */
  lineAt(item, at, near, among) {
    const p = own(item, at), some = among && new Set(among);
    this.#scratch.lineWidth = 2 * near;
    for (let i = item.lines.length - 1; i >= 0; i--) {
      const line = lineOf(item.piece, item.lines[i].id);
      if (some && !some.has(line)) continue;
      const path = new Path2D(this.#shape(item)[i]);
      if (this.#scratch.isPointInStroke(path, p.x, p.y)) return line;
      // A line that is picked already can be taken hold of anywhere inside it.
      if (some && this.#scratch.isPointInPath(path, p.x, p.y)) return line;
    }
    return null;
  }

  /** A point inside an item's outline, its openings included. */
  isInOutline(item, at) {
    const p = own(item, at);
    return this.#scratch.isPointInPath(new Path2D(this.#shape(item)[0]), p.x, p.y);
  }

  within(layout, [minX, minY, maxX, maxY]) {
    return layout.items.filter(item => {
      const [a, b, c, d] = boxOf(item);
      return a >= minX && b >= minY && c <= maxX && d <= maxY;
    });
  }

  /** The upright box on the table of what is picked. */
  boxOf(layout, { pieces, lines }) {
    const items = layout.items.filter(i => pieces.includes(i.piece));
    const boxes = lines.length ? items.flatMap(i => linesOf(i, lines).map(n => this.#lineBox(i, n))) : items.map(boxOf);
    if (boxes.length === 0) return [0, 0, 0, 0];
    return around(boxes);
  }

  /** What is picked as paths for a ghost. */
  paths(layout, { pieces, lines }) {
    const items = layout.items.filter(i => pieces.includes(i.piece));
    return lines.length === 0 ? this.papers(items)
      : items.map(item => ({ d: linesOf(item, lines).map(n => this.#shape(item)[n]).join(""), map: item.map }));
  }

  /** Whole items as paths for a ghost. */
  papers(items) {
    return items.map(item => ({ d: item.lines.map((l, i) => l.role === "i" ? "" : this.#shape(item)[i]).join(""), map: item.map, fill: item.fill }));
  }

  /** A line with the ways between its own coordinates, the table's and the card's. */
  line(item, line) {
    const { id } = parts(line), i = item.lines.findIndex(l => l.id === id);
    if (i < 0) return null;
    const toTable = new DOMMatrix(item.map), toOwn = toTable.inverse(), toCard = new DOMMatrix(item.place);
    const through = (m, p) => { const q = m.transformPoint(new DOMPoint(p.x, p.y)); return [q.x, q.y]; };
    return {
      d: this.#shape(item)[i], map: item.map,
      toTable: p => through(toTable, p),
      toOwn: p => { const [x, y] = through(toOwn, p); return { x, y }; },
      toCard: p => through(toCard, p),
    };
  }

  nearestOn(line, at) { return nearestOn(parse(line.d), line.toOwn(at)); }

  aids(layout) {
    return layout.loose.filter(l => l.op === "aid").map(l => boundsOf(l.path)).map(b => [b.x, b.y, b.x + b.width, b.y + b.height]);
  }

  #shape(item) { return this.#scene.shapes[item.shape]; }

  #paper(item) {
    if (!this.#papers.has(item.shape)) {
      const path = new Path2D();
      item.lines.forEach((line, i) => { if (line.role !== "i") path.addPath(new Path2D(this.#shape(item)[i])); });
      this.#papers.set(item.shape, path);
    }
    return this.#papers.get(item.shape);
  }

  #lineBox(item, i) {
    const key = `${item.shape} ${i}`;
    if (!this.#boxes.has(key)) this.#boxes.set(key, boundsOf(this.#shape(item)[i]));
    return cornersOf(this.#boxes.get(key), item.map);
  }
}

/** Which of an item's lines are among some, by their numbers. */
function linesOf(item, lines) {
  const some = new Set(lines);
  return item.lines.flatMap((l, i) => some.has(lineOf(item.piece, l.id)) ? [i] : []);
}

function own(item, at) {
  return new DOMMatrix(item.map).inverse().transformPoint(new DOMPoint(at.x, at.y));
}

let measuring = null;
function boundsOf(d) {
  if (!measuring) {
    const svg = document.createElementNS(SVG, "svg");
    svg.setAttribute("class", "unseen");
    svg.setAttribute("aria-hidden", "true");
    measuring = document.createElementNS(SVG, "path");
    svg.append(measuring);
    document.body.append(svg);
  }
  measuring.setAttribute("d", d);
  const { x, y, width, height } = measuring.getBBox();
  return { x, y, width, height };
}
