// @ts-check
// By hand at Sheets: copies are dragged and turned where they lie. Whether they may lie somewhere is told by the server, which is
// asked while the hand moves; it also finds the nearest place where they may.
import { post } from "../../actions.js";
import { copyOf } from "../../picked.js";
import { isNear, turned } from "../handles.js";
import { Latest } from "../latest.js";
import { boxOfItems, keyWith, pickedOf, turnHandle } from "../copies.js";

/** @typedef {import("../light-table.js").LightTable} LightTable */
/** @typedef {{ degrees: number, by: Point, to: SceneFrame | undefined, text: string }} Reading */
/** @typedef {{ x: number, y: number, why?: string }} Landing where copies would come to lie, or why not */

/**
 * @param {LightTable} table
 * @param {TablePoint} at
 * @returns {Gesture | null}
 */
export function place(table, at) {
  const picked = pickedOf(table.layout);
  if (picked.length && isNear(turnHandle(table.view, picked), at.screen)) return turning(table, together(picked, picked[0]), at);
  const item = table.sight.itemAt(at);
  return item ? moving(table, picked.includes(item) ? together(picked, item) : [item], at) : null;
}

/**
 * Moves or turns what is picked, by a key or a button; only the pieces on one sheet at a time.
 * @param {LightTable} table
 * @param {number} degrees
 * @param {Point} by
 */
export function movePicked(table, degrees, by) {
  const picked = pickedOf(table.layout);
  if (picked.length === 0) return;
  const items = together(picked, picked[0]);
  const [minX, minY, maxX, maxY] = boxOfItems(items);
  const middle = { x: (minX + maxX) / 2, y: (minY + maxY) / 2 };
  post("Move", words(table, items, sheetOf(table.layout, items[0].sheet), degrees, middle, by, true));
}

/** Those on the sheet of one of them. */
const together = (/** @type {SceneItem[]} */ items, /** @type {SceneItem} */ one) => items.filter((i) => i.sheet === one.sheet);

/**
 * @param {SceneLayout} layout
 * @param {string | undefined} id
 */
function sheetOf(layout, id) {
  const sheet = layout.frames.find((f) => f.sheet === id);
  if (!sheet) throw new Error(`There is no sheet ${id}.`);
  return sheet;
}

/**
 * @param {SceneLayout} layout
 * @param {Point} at
 */
function sheetAt(layout, { x, y }) {
  return layout.frames.find((f) => f.sheet && x >= f.box[0] && x <= f.box[2] && y >= f.box[1] && y <= f.box[3]);
}

/**
 * A move in the words of the server; lengths in the coordinates of the sheets.
 * @param {LightTable} table
 * @param {SceneItem[]} items
 * @param {SceneFrame} to
 * @param {number} degrees
 * @param {Point} about
 * @param {Point} by
 * @param {boolean} holds
 * @returns {Record<string, any>}
 */
function words(table, items, to, degrees, about, by, holds) {
  const from = sheetOf(table.layout, items[0].sheet);
  const n = (/** @type {number} */ v) => Number(v.toFixed(6));
  return {
    sheet: items[0].sheet,
    copies: items.map(copyOf).join(),
    to: to.sheet,
    holds,
    degrees,
    aboutX: n(about.x - from.box[0]),
    aboutY: n(about.y),
    x: n(by.x + from.box[0] - to.box[0]),
    y: n(by.y),
  };
}

/**
 * @param {Record<string, any>} asked
 * @returns {Promise<Landing | null>}
 */
async function mayLie(asked) {
  const answer = await fetch(`?handler=MayLie&${new URLSearchParams(asked)}`);
  return answer.ok ? answer.json() : null;
}

/**
 * @param {number} degrees
 * @param {Point} about
 * @param {Point} by
 */
const mapOf = (degrees, about, by) =>
  new DOMMatrix()
    .translate(about.x + by.x, about.y + by.y)
    .rotate(degrees)
    .translate(-about.x, -about.y);

/**
 * @param {LightTable} table
 * @param {SceneItem[]} items
 * @param {(at: TablePoint, event: PointerEvent, about: Point) => Reading} read
 * @returns {Gesture}
 */
function gesture(table, items, read) {
  const asking = new Latest(mayLie);
  const box = boxOfItems(items);
  const about = { x: (box[0] + box[2]) / 2, y: (box[1] + box[3]) / 2 };
  /** @type {{ words: Record<string, any>, isMove: boolean } | null} */
  let last = null;
  table.showGhostOf(items, box);
  return {
    move(at, event) {
      const { degrees, by, to, text } = read(at, event, about);
      table.ghost.move(mapOf(degrees, about, by));
      if (!to) {
        last = null;
        table.ghost.landing(null);
        table.hint([], "Drop it on a sheet of this stock.");
        return;
      }
      last = { words: words(table, items, to, degrees, about, by, !event.altKey), isMove: degrees !== 0 || by.x !== 0 || by.y !== 0 };
      const from = sheetOf(table.layout, items[0].sheet);
      asking.ask(last.words, ({ x, y, why }) => {
        const there = mapOf(degrees, about, { x: x - from.box[0] + to.box[0], y });
        table.ghost.landing(why ? mapOf(degrees, about, by) : there, Boolean(why));
        table.hint([], why ?? text);
      });
    },
    end() {
      asking.end();
      if (!last?.isMove) return table.ghost.clear();
      table.pick(keyWith(table.layout, items.map(copyOf)));
      return post("Move", last.words);
    },
  };
}

/**
 * @param {LightTable} table
 * @param {SceneItem[]} items
 * @param {Point} from
 */
function moving(table, items, from) {
  return gesture(table, items, (at) => {
    const by = { x: at.x - from.x, y: at.y - from.y };
    return { degrees: 0, by, to: sheetAt(table.layout, at), text: `${table.length(by.x)}, ${table.length(by.y)}` };
  });
}

/**
 * @param {LightTable} table
 * @param {SceneItem[]} items
 * @param {Point} from
 */
function turning(table, items, from) {
  return gesture(table, items, (at, event, about) => {
    const step = event.shiftKey ? 1 : 15;
    const degrees = Math.round(turned(from, at, about) / step) * step;
    return { degrees, by: { x: 0, y: 0 }, to: sheetOf(table.layout, items[0].sheet), text: `${degrees}°` };
  });
}
