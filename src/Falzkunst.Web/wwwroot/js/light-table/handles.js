// The handles of what is picked: at the lower right to size, above to turn.
const PAD = 6;

/** Places on screen, in pixels. */
export function handlesOf(view, [minX, minY, maxX, maxY]) {
  const a = view.toScreen(minX, minY), b = view.toScreen(maxX, maxY);
  const [left, top, right, bottom] = [a.x - PAD, a.y - PAD, b.x + PAD, b.y + PAD];
  return [
    { kind: "both", x: right, y: bottom },
    { kind: "width", x: right, y: (top + bottom) / 2 },
    { kind: "height", x: (left + right) / 2, y: bottom },
    { kind: "turn", x: (left + right) / 2, y: top - 18 },
  ];
}

export const isNear = (handle, p) => Math.hypot(handle.x - p.x, handle.y - p.y) < 9;
