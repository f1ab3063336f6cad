// @ts-check
import { act } from "../../actions.js";
import { turned } from "../handles.js";

/** @typedef {import("../light-table.js").LightTable} LightTable */

/**
 * Turns what is picked about its middle, by 5 degrees, or by tenths with Alt.
 * @param {LightTable} table
 * @param {Picked} key
 * @param {Point} from
 * @returns {Gesture}
 */
export function turn(table, key, from) {
  const [minX, minY, maxX, maxY] = table.sight.boxOfPick(key);
  const centre = { x: (minX + maxX) / 2, y: (minY + maxY) / 2 };
  let degrees = 0;
  table.showGhost(key);
  return {
    move(at, event) {
      const step = event.altKey ? 0.1 : 5;
      degrees = Number((Math.round(turned(from, at, centre) / step) * step).toFixed(1));
      table.ghost.move(new DOMMatrix().translate(centre.x, centre.y).rotate(degrees).translate(-centre.x, -centre.y));
      table.hint([], `${degrees}°`);
    },
    end: () => (degrees ? act("turn", { degrees }) : table.ghost.clear()),
  };
}
