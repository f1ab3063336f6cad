// @ts-check
// What a touch, or a step by a key, picks.
import { copies, copyOf, lineOf, now, parts, toggled, toggledLine, write } from "../../picked.js";
import { keyWith } from "../copies.js";
import { stepped } from "../hand-maths.js";
import { isRun, keyAfterRunTouch } from "../touched.js";

/** @typedef {import("../light-table.js").LightTable} LightTable */

/**
 * A touch picks the piece; on the piece that is picked already it picks the line there. With Shift it adds to the pick. Null where
 * it picks nothing new.
 * @param {LightTable} table
 * @param {TablePoint} at
 * @param {boolean} adds
 */
export function keyAfterTouch(table, at, adds) {
  if (isRun()) return keyAfterRunTouch(table.sight, at);
  const item = table.sight.itemAt(at);
  if (table.canPlace) return copyAfterTouch(table.layout, item, adds);
  if (!table.canArrange) return item?.piece ?? null;
  const key = now();
  const only = key.pieces.length === 1 ? table.sight.itemsOf(key)[0] : undefined;
  // With lines picked, a line of any piece is added to them by Shift.
  const on = adds && key.lines.length ? (item ?? only) : only;
  const line = on && table.sight.lineAt(at, on);
  if (line && (!item || item === on || key.lines.length))
    return write(adds && key.lines.length ? toggledLine(key, line) : { pieces: [parts(line).piece], lines: [line] });
  if (!item) return "none";
  return adds ? write(toggled(key, item.piece)) : item.piece;
}

/**
 * The line of the picked piece, or the copy on a sheet, before or after the picked one; null where there is none.
 * @param {LightTable} table
 * @param {number} by 1 or -1
 */
export function keyAfterStep(table, by) {
  if (table.canPlace) return copyAfterStep(table.layout, by);
  const key = now();
  const [item] = table.sight.itemsOf(key);
  if (!item || key.pieces.length !== 1) return null;
  const at = item.lines.findIndex((l) => lineOf(item.piece, l.id) === key.lines[0]);
  const to = item.lines[stepped(at, by, item.lines.length)];
  return write({ pieces: key.pieces, lines: [lineOf(item.piece, to.id)] });
}

/**
 * That copy alone, or added to or taken from the others.
 * @param {SceneLayout} layout
 * @param {SceneItem | undefined} item
 * @param {boolean} adds
 */
function copyAfterTouch(layout, item, adds) {
  const before = copies();
  if (!item) return keyWith(layout, []);
  const copy = copyOf(item);
  if (!adds) return keyWith(layout, [copy]);
  return keyWith(layout, before.includes(copy) ? before.filter((c) => c !== copy) : [...before, copy]);
}

/**
 * @param {SceneLayout} layout
 * @param {number} by
 */
function copyAfterStep(layout, by) {
  const { items } = layout;
  if (items.length === 0) return null;
  const at = items.findIndex((i) => copies().includes(copyOf(i)));
  return keyWith(layout, [copyOf(items[stepped(at, by, items.length)])]);
}
