// @ts-check
// Which tool a stroke of the hand is for. Each tool is a gesture that ends in one action.
import { now } from "../../picked.js";
import { handlesOf, isNear } from "../handles.js";
import { band } from "./band.js";
import { dragPrint } from "../prints.js";
import { dragTie } from "../ties.js";
import { bend } from "./bend.js";
import { draw } from "./draw.js";
import { looseBand, looseForm } from "./loose-band.js";
import { move } from "./move.js";
import { place } from "./place.js";
import { resize } from "./resize.js";
import { turn } from "./turn.js";

/**
 * The gesture that begins at a place, or null where the view is moved.
 * @param {import("../light-table.js").LightTable} table
 * @param {PointerEvent} event
 * @param {TablePoint} at
 * @returns {Gesture | null}
 */
export function begin(table, event, at) {
  if (event.button !== 0) return null;
  const writing = table.writer?.begin(at);
  if (writing) return writing;
  if (table.layout.byHand) return place(table, at);
  if (table.drawing) return draw(table, table.drawing, at);
  const loose = event.shiftKey ? looseForm() : null;
  if (loose) return looseBand(table, loose, at);
  const shown = dragTie(table, at) ?? dragPrint(table, at);
  if (shown) return shown;
  const line = table.sight.pickedLine();
  const grabbed = line && table.nodes.grabbed(at);
  if (line && grabbed) return bend(table, line, grabbed);
  const key = now();
  const picked = table.sight.itemsOf(key);
  const isOnPicked = key.lines.length > 0 && picked.some((i) => table.sight.lineAt(at, i, key.lines) !== null);
  if (event.shiftKey && key.lines.length > 0 && !isOnPicked && table.canArrange) return band(table, at);
  if (picked.length && table.canArrange && picked.every((i) => !i.locked)) {
    const handle = handlesOf(table.view, table.sight.boxOfPick(key)).find((h) => isNear(h, at.screen));
    if (handle) return handle.kind === "turn" ? turn(table, key, at) : resize(table, key, handle.kind, at);
    const isHeld = (/** @type {SceneItem} */ i) =>
      key.lines.length ? table.sight.lineAt(at, i, key.lines) !== null : table.sight.isInOutline(at, i);
    if (table.canMove && picked.some(isHeld)) return move(table, key, at);
  }
  return event.shiftKey && !table.sight.itemAt(at) ? band(table, at) : null;
}
