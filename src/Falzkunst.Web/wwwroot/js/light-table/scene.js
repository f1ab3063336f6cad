// A scene as it comes from the server, made whole: it says which pieces are other than before, and where all of them lie.

/** The scene with what it left out taken from the one before it, and every item with what is known of its piece. */
export function complete(scene, before) {
  const pieces = {}, shapes = {};
  for (const layout of scene.layouts) {
    for (const item of layout.items) {
      const piece = pieces[item.piece] ??= scene.pieces[item.piece] ?? before?.pieces[item.piece];
      shapes[piece.shape] ??= scene.shapes[piece.shape] ?? before?.shapes[piece.shape];
      Object.assign(item, piece);
    }
  }
  return { ...scene, pieces, shapes };
}
