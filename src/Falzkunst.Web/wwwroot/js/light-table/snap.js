// Where a moving box holds on: the card's edges and middles, other pieces' edges and middles, aids, the grid.
import { boxOf } from "./boxes.js";

export const gridStep = inches => inches ? 25.4 / 4 : 5;

/** The places to hold on to, across and down, each with its words. */
export function targetsOf(layout, moving, inPieces, aids) {
  const xs = [], ys = [];
  const take = ([minX, minY, maxX, maxY], name) => {
    xs.push([minX, `left edge of ${name}`], [(minX + maxX) / 2, `middle of ${name}`], [maxX, `right edge of ${name}`]);
    ys.push([minY, `top of ${name}`], [(minY + maxY) / 2, `middle of ${name}`], [maxY, `bottom of ${name}`]);
  };
  for (const frame of layout.frames) if (frame.kind === "guide") take(frame.box, "the card");
  for (const item of layout.items) if (!moving.includes(item.piece) || inPieces.includes(item.piece)) take(boxOf(item), item.name);
  for (const box of aids) take(box, "an aid");
  return { xs, ys };
}

/** How far to shift a box so that it holds on, and what it holds on to. */
export function hold([minX, minY, maxX, maxY], { xs, ys }, reach, grid) {
  const [x, wordX, atX] = nearest([minX, (minX + maxX) / 2, maxX], xs, reach, grid);
  const [y, wordY, atY] = nearest([minY, (minY + maxY) / 2, maxY], ys, reach, grid);
  return { dx: x, dy: y, hints: [wordX && { x: atX, word: wordX }, wordY && { y: atY, word: wordY }].filter(Boolean) };
}

function nearest(own, targets, reach, grid) {
  let best = [0, null, 0], least = reach;
  for (const [at, word] of targets) {
    for (const mine of own) {
      if (Math.abs(at - mine) < least) [best, least] = [[at - mine, word, at], Math.abs(at - mine)];
    }
  }
  if (best[1] || !grid) return best;
  const at = Math.round(own[0] / grid) * grid;
  return Math.abs(at - own[0]) < reach ? [at - own[0], "grid", at] : best;
}
