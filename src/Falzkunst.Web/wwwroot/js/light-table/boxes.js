// Where items lie on the table; for the page and the worker alike.
function corners(item) {
  const { x, y, width, height } = item.size, [a, b, c, d, e, f] = item.map;
  return [[x, y], [x + width, y], [x, y + height], [x + width, y + height]].map(([px, py]) => [a * px + c * py + e, b * px + d * py + f]);
}

/** The upright box of an item on the table. */
export function boxOf(item) {
  const all = corners(item);
  return [Math.min(...all.map(p => p[0])), Math.min(...all.map(p => p[1])), Math.max(...all.map(p => p[0])), Math.max(...all.map(p => p[1]))];
}
