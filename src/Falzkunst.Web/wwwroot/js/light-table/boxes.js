// Where items lie on the table; for the page and the worker alike.
/** The upright box of a box under a map. */
export function cornersOf({ x, y, width, height }, [a, b, c, d, e, f]) {
  const all = [[x, y], [x + width, y], [x, y + height], [x + width, y + height]].map(([px, py]) => [a * px + c * py + e, b * px + d * py + f]);
  return [Math.min(...all.map(p => p[0])), Math.min(...all.map(p => p[1])), Math.max(...all.map(p => p[0])), Math.max(...all.map(p => p[1]))];
}

/** The box round boxes. */
export const around = boxes => boxes.reduce((all, b) => [Math.min(all[0], b[0]), Math.min(all[1], b[1]), Math.max(all[2], b[2]), Math.max(all[3], b[3])]);

/** The upright box of all that is drawn of an item, lines past its edge among it. */
export const reachOf = item => item.reach ? cornersOf({ x: item.reach[0], y: item.reach[1], width: item.reach[2], height: item.reach[3] }, item.map) : boxOf(item);

/** The upright box of an item on the table. */
export const boxOf = item => cornersOf(item.size, item.map);
