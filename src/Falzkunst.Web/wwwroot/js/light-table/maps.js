// @ts-check
// Affine maps as six numbers, as in SVG's matrix(): for the page, the worker and tests alike.

/**
 * @param {Map6} map
 * @param {Point} p
 * @returns {Point}
 */
export const apply = ([a, b, c, d, e, f], { x, y }) => ({ x: a * x + c * y + e, y: b * x + d * y + f });

/**
 * The map that does the second after the first.
 * @param {Map6} first
 * @param {Map6} second
 * @returns {Map6}
 */
export function then([a, b, c, d, e, f], second) {
  const [A, B, C, D, E, F] = second;
  return [A * a + C * b, B * a + D * b, A * c + C * d, B * c + D * d, A * e + C * f + E, B * e + D * f + F];
}

/**
 * @param {Map6} map not degenerate
 * @returns {Map6}
 */
export function inverse([a, b, c, d, e, f]) {
  const det = a * d - b * c;
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det];
}

/** How many times longer a length becomes: the root of the area's factor. */
export const scaleOf = (/** @type {Map6} */ [a, b, c, d]) => Math.sqrt(Math.abs(a * d - b * c));
