// @ts-check
import { act, mm } from "../../actions.js";
import { hold, targetsOf } from "../snap.js";

/** @typedef {import("../light-table.js").LightTable} LightTable */

const REACH = 7; // pixels within which an edge holds on

/**
 * Moves what is picked; its edges and middles hold on to others unless Alt is held.
 * @param {LightTable} table
 * @param {Picked} key
 * @param {Point} from
 * @returns {Gesture}
 */
export function move(table, key, from) {
  const box = table.sight.boxOfPick(key);
  const targets = targetsOf(table.layout, key.pieces, key.lines.length ? key.pieces : [], table.sight.aidBoxes);
  let by = { x: 0, y: 0 };
  table.showGhost(key);
  return {
    move(at, event) {
      by = { x: at.x - from.x, y: at.y - from.y };
      /** @type {Hint[]} */
      let hints = [];
      if (!event.altKey) {
        /** @type {Box} */
        const moved = [box[0] + by.x, box[1] + by.y, box[2] + by.x, box[3] + by.y];
        const held = hold(moved, targets, REACH / table.view.scale, table.grid);
        by = { x: by.x + held.dx, y: by.y + held.dy };
        hints = held.hints;
      }
      table.ghost.move(new DOMMatrix([1, 0, 0, 1, by.x, by.y]));
      table.hint(hints, `${table.length(by.x)}, ${table.length(by.y)}`);
    },
    end: () => (by.x || by.y ? act("move", { dx: mm(by.x), dy: mm(by.y) }) : table.ghost.clear()),
  };
}
