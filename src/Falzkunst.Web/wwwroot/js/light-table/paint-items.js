// @ts-check
// Pieces of one scene: their paths made ready once, and painted as often as asked.
import { strokes } from "./marks.js";
import { lineOf } from "../picked-words.js";

const [FAINT, LEFT_OUT, PAPER_WHILE_RUNNING, TO_COME] = [0.3, 0.3, 0.55, 0.22]; // opacity

/** @typedef {OffscreenCanvasRenderingContext2D} Context */
/** @typedef {{ op: string, colour: string, mark: string, path: Path2D, fill: Path2D | null }} Kind lines that are drawn alike */
/** @typedef {{ paper: Path2D, cutBack: Path2D | null, kinds: Kind[] }} Gathered */

export class Items {
  #scene;
  #prints;
  /** @type {Map<string, Path2D[]>} */
  #shapes = new Map();
  /** @type {Map<string, Gathered>} */
  #gathered;
  /** @type {Map<string, Path2D>} */
  #picked = new Map();

  /**
   * @param {Scene} scene
   * @param {Items | null} before what is as it was is taken from there
   * @param {import("./paint-prints.js").Prints} prints pictures on pieces
   */
  constructor(scene, before, prints) {
    this.#scene = scene;
    this.#prints = prints;
    for (const [hash, lines] of Object.entries(scene.shapes))
      this.#shapes.set(hash, (before && before.#shapes.get(hash)) ?? lines.map((d) => new Path2D(d)));
    this.#gathered = before ? before.#gathered : new Map();
    const versions = new Set(Object.values(scene.pieces).map((p) => p.version));
    for (const version of this.#gathered.keys()) if (!versions.has(version)) this.#gathered.delete(version);
  }

  /** Colour of an operation's lines. */
  colours = (/** @type {string} */ word) => this.#scene.operations[this.#order(word)].colour;

  /** The outline. */
  edge(/** @type {SceneItem} */ item) {
    return this.#lines(item)[0];
  }

  /** Other lines are picked now. */
  forgetPicked() {
    this.#picked.clear();
  }

  /**
   * The picked lines of a piece in one path.
   * @param {SceneItem} item
   * @param {string[]} picked
   */
  picked(item, picked) {
    let path = this.#picked.get(item.piece);
    if (path) return path;
    path = new Path2D();
    const [lines, some] = [this.#lines(item), new Set(picked)];
    item.lines.forEach((line, i) => {
      if (some.has(lineOf(item.piece, line.id))) path?.addPath(lines[i]);
    });
    this.#picked.set(item.piece, path);
    return path;
  }

  /**
   * @param {Context} g
   * @param {SceneItem} item
   * @param {number} unit
   * @param {Shown["what"]} what
   * @param {boolean} bare only what tools run
   */
  paint(g, item, unit, what = /** @type {Shown["what"]} */ ("both"), bare = false) {
    const { paper, cutBack, kinds } = this.#gather(item);
    if (!bare) {
      g.fillStyle = item.fill;
      g.fill(paper, "evenodd");
      if (item.prints && what !== "cut") this.#prints.paint(g, paper, item.prints);
    }
    if (what === "printed") return;
    g.setLineDash([]);
    if (cutBack) {
      g.globalAlpha = FAINT;
      g.lineWidth = unit;
      g.strokeStyle = this.colours("score");
      g.stroke(cutBack);
    }
    for (const kind of kinds) {
      g.globalAlpha = kind.mark.includes("o") ? LEFT_OUT : 1;
      if (kind.fill) {
        g.setLineDash([]);
        g.lineWidth = unit;
        g.strokeStyle = kind.colour;
        g.stroke(kind.fill);
      }
      strokes(g, kind.op, kind.colour, kind.path, unit, item.fill, kind.mark);
    }
    g.globalAlpha = 1;
  }

  /**
   * What has run stands out; what is still to come is faint.
   * @param {Context} g
   * @param {SceneItem} item
   * @param {number} unit
   * @param {Progress} progress
   */
  paintRunning(g, item, unit, progress) {
    const { paper } = this.#gather(item);
    const lines = this.#lines(item);
    g.fillStyle = item.fill;
    g.globalAlpha = PAPER_WHILE_RUNNING;
    g.fill(paper, "evenodd");
    if (item.prints) this.#prints.paint(g, paper, item.prints);
    item.lines.forEach((line, i) => {
      if (line.op === "print") return;
      const runs = item.runs?.[i];
      const isDone = runs && (runs[0] < progress.step || (runs[0] === progress.step && runs[1] < progress.line));
      g.globalAlpha = isDone ? 1 : TO_COME;
      strokes(g, line.op, this.#colourOf(line), pathOf(item, line, lines[i]), unit, item.fill, line.mark);
    });
    g.globalAlpha = 1;
  }

  /**
   * The lines of an item gathered by how they are drawn: one stroke call a kind instead of one a line. Asked at every paint,
   * found once for a piece and all its copies.
   * @param {SceneItem} item
   */
  #gather(item) {
    let found = this.#gathered.get(item.version);
    if (found) return found;
    const lines = this.#lines(item);
    const paper = new Path2D();
    // What a score loses where it stops short of a cut is shown faint.
    const cutBack = Object.keys(item.scores).length > 0 ? new Path2D() : null;
    /** @type {Map<string, Kind>} */
    const kinds = new Map();
    item.lines.forEach((line, i) => {
      if (line.role !== "i") paper.addPath(lines[i]);
      // What is printed is painted as it will look.
      if (line.op === "print") return;
      if (line.id in item.scores) cutBack?.addPath(lines[i]);
      const to = this.#kindOf(line, kinds);
      to.path.addPath(pathOf(item, line, lines[i]));
      if (line.id in item.fills) (to.fill ??= new Path2D()).addPath(new Path2D(item.fills[line.id]));
    });
    found = { paper, cutBack, kinds: [...kinds.values()].sort((a, b) => this.#order(a.op) - this.#order(b.op)) };
    this.#gathered.set(item.version, found);
    return found;
  }

  /**
   * @param {SceneLine} line
   * @param {Map<string, Kind>} kinds
   */
  #kindOf(line, kinds) {
    const mark = line.mark ?? "";
    const key = line.op + (line.ink ?? "") + mark;
    let kind = kinds.get(key);
    if (!kind) kinds.set(key, (kind = { op: line.op, colour: this.#colourOf(line), mark, path: new Path2D(), fill: null }));
    return kind;
  }

  /** @param {SceneItem} item */
  #lines(item) {
    return this.#shapes.get(item.shape) ?? [];
  }

  /** @param {SceneLine} line */
  #colourOf(line) {
    return line.ink ?? this.colours(line.op);
  }

  /** @param {string} word */
  #order(word) {
    return this.#scene.operations.findIndex((o) => o.word === word);
  }
}

/**
 * A line as it runs: as drawn, or a score as it was fitted.
 * @param {SceneItem} item
 * @param {SceneLine} line
 * @param {Path2D} drawn
 */
const pathOf = (item, line, drawn) => (line.id in item.scores ? new Path2D(item.scores[line.id]) : drawn);
