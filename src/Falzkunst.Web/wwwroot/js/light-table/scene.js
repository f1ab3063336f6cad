// @ts-check
// A scene as it comes from the server, made whole: it says which pieces are other than before, and where all of them lie.

/**
 * The scene with what it left out taken from the one before it, and every item with what is known of its piece.
 * @param {Scene} scene
 * @param {Scene | null} before
 * @returns {Scene}
 */
export function complete(scene, before) {
  /** @type {Scene["pieces"]} */
  const pieces = {};
  /** @type {Scene["shapes"]} */
  const shapes = {};
  for (const layout of scene.layouts) {
    for (const item of layout.items) {
      const piece = (pieces[item.piece] ??= known(scene.pieces[item.piece] ?? before?.pieces[item.piece], item.piece));
      shapes[piece.shape] ??= known(scene.shapes[piece.shape] ?? before?.shapes[piece.shape], piece.shape);
      Object.assign(item, piece);
    }
  }
  return { ...scene, pieces, shapes };
}

/**
 * @template T
 * @param {T | undefined} value
 * @param {string} name
 */
function known(value, name) {
  if (value === undefined) throw new Error(`The scene lacks ${name}.`);
  return value;
}
