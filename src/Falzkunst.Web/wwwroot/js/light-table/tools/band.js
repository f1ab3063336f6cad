// @ts-check
import { now, write } from "../../picked.js";

/** @typedef {import("../light-table.js").LightTable} LightTable */

/**
 * Adds the pieces within a band to the pick, or where lines are picked the lines within it.
 * @param {LightTable} table
 * @param {Point} from
 * @returns {Gesture}
 */
export function band(table, from) {
  /** @type {Box | null} */
  let box = null;
  return {
    move(at) {
      box = [Math.min(from.x, at.x), Math.min(from.y, at.y), Math.max(from.x, at.x), Math.max(from.y, at.y)];
      table.ghost.preview(`M${box[0]} ${box[1]}H${box[2]}V${box[3]}H${box[0]}Z`, [1, 0, 0, 1, 0, 0]);
    },
    end() {
      table.ghost.clear();
      if (!box) return;
      if (now().lines.length) {
        const lines = [...new Set([...now().lines, ...table.sight.linesWithin(box)])];
        table.pick(write({ pieces: [], lines }));
        return;
      }
      const pieces = table.sight.itemsWithin(box).map((i) => i.piece);
      table.pick(write({ pieces: [...new Set([...now().pieces, ...pieces])], lines: [] }));
    },
  };
}
