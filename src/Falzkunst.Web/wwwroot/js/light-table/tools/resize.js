// @ts-check
import { act, mm } from "../../actions.js";
import { factors } from "../hand-maths.js";

/** @typedef {import("../light-table.js").LightTable} LightTable */

/**
 * Sizes what is picked from its upper left corner.
 * @param {LightTable} table
 * @param {Picked} key
 * @param {Exclude<Handle["kind"], "turn">} kind
 * @param {Point} from
 * @returns {Gesture}
 */
export function resize(table, key, kind, from) {
  const [minX, minY, maxX, maxY] = table.sight.boxOfPick(key);
  const [width, height] = [maxX - minX, maxY - minY];
  let k = { x: 1, y: 1 };
  table.showGhost(key);
  return {
    move(at, event) {
      const own = { x: (width + at.x - from.x) / Math.max(1e-6, width), y: (height + at.y - from.y) / Math.max(1e-6, height) };
      k = factors(kind, own, event.shiftKey);
      table.ghost.move(new DOMMatrix([k.x, 0, 0, k.y, minX * (1 - k.x), minY * (1 - k.y)]));
      table.hint([], `${table.length(width * k.x)} × ${table.length(height * k.y)}`);
    },
    end() {
      if (k.x === 1 && k.y === 1) return table.ghost.clear();
      const size = table.sight.sizeOfPick(key);
      return act("resize", { width: mm(size.width * k.x), height: mm(size.height * k.y) });
    },
  };
}
