// @ts-check
import { act, mm, sketch } from "../../actions.js";
import { Latest } from "../latest.js";

/** @typedef {import("../light-table.js").LightTable} LightTable */
/** @typedef {{ node: number } | { handle: NodeHandle }} Grabbed */

/**
 * Bends the picked line by a node or a handle; the server says how it runs then.
 * @param {LightTable} table
 * @param {LineOnTable} line
 * @param {Grabbed} grabbed
 * @returns {Gesture}
 */
export function bend(table, line, grabbed) {
  const asking = new Latest(({ name, values }) => sketch(name, values));
  table.nodes.chosen = "node" in grabbed ? grabbed.node : null;
  /** @type {{ name: string, values: Record<string, unknown> } | null} */
  let last = null;
  return {
    move(at) {
      const [x, y] = line.toCard(line.fromTable(at));
      const place = { x: mm(x), y: mm(y) };
      last =
        "node" in grabbed
          ? { name: "node-move", values: { node: grabbed.node, ...place } }
          : { name: "node-handle", values: { segment: grabbed.handle.segment, first: grabbed.handle.first, ...place } };
      asking.ask(last, ({ d }) => table.ghost.preview(d, line.cardMap));
      table.hint([], `${table.length(x)}, ${table.length(y)}`);
    },
    end() {
      asking.end();
      table.redraw();
      return last ? act(last.name, last.values) : undefined;
    },
  };
}
