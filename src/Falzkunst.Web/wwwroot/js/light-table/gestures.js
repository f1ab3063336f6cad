// What a hand does on the table besides moving the view: moving, sizing and turning what is picked, bending lines by their
// nodes, drawing shapes, picking with a band. Each gesture ends in one action.
import { act, mm } from "../actions.js";
import { now, write as writeKey } from "../picked.js";
import { hold, targetsOf } from "./snap.js";
import * as nodes from "./nodes.js";
import { handlesOf, isNear, turned } from "./handles.js";
import * as placing from "./placing.js";
import { preview, actionFor } from "./drawing.js";

const REACH = 7;   // pixels within which an edge holds on

/** The gesture that begins at a place, or null where the view is moved. */
export function begin(table, event, at) {
  if (event.button !== 0) return null;
  if (table.layout.byHand) return placing.begin(table, at);
  if (table.drawing) return drawing(table, at);
  const key = now();
  const picked = table.itemsOf(key);
  if (table.nodesShown) {
    const grabbed = nodeAt(table, at);
    if (grabbed) return bending(table, grabbed);
  }
  if (picked.length && table.canArrange && picked.every(i => !i.locked)) {
    const handle = handlesOf(table.view, table.boxOfPick(key)).find(h => isNear(h, at.screen));
    if (handle) return handle.kind === "turn" ? turning(table, key, at) : sizing(table, key, handle.kind, at);
    if (table.canMove && (key.lines.length ? picked.some(i => table.lineAt(at, i, key.lines)) : picked.some(i => table.isInOutline(at, i)))) return moving(table, key, at);
  }
  return event.shiftKey && !table.itemAt(at) ? band(table, at) : null;
}

function moving(table, key, from) {
  const box = table.boxOfPick(key);
  const targets = targetsOf(table.layout, key.pieces, key.lines.length ? key.pieces : [], table.aidBoxes);
  let by = { x: 0, y: 0 };
  table.showGhost(key);
  return {
    move(at, event) {
      by = { x: at.x - from.x, y: at.y - from.y };
      let hints = [];
      if (!event.altKey) {
        const moved = [box[0] + by.x, box[1] + by.y, box[2] + by.x, box[3] + by.y];
        const held = hold(moved, targets, REACH / table.view.scale, table.grid);
        by = { x: by.x + held.dx, y: by.y + held.dy };
        hints = held.hints;
      }
      table.ghost.move(new DOMMatrix([1, 0, 0, 1, by.x, by.y]));
      table.hint(hints, `${table.length(by.x)}, ${table.length(by.y)}`);
    },
    end: () => by.x || by.y ? act("move", { dx: mm(by.x), dy: mm(by.y) }) : table.ghost.clear(),
  };
}

function sizing(table, key, kind, from) {
  const [minX, minY, maxX, maxY] = table.boxOfPick(key), width = maxX - minX, height = maxY - minY;
  let k = { x: 1, y: 1 };
  table.showGhost(key);
  return {
    move(at, event) {
      const x = Math.max(0.01, (width + at.x - from.x) / Math.max(1e-6, width)), y = Math.max(0.01, (height + at.y - from.y) / Math.max(1e-6, height));
      if (kind === "width") k = { x, y: 1 };
      else if (kind === "height") k = { x: 1, y };
      else if (event.shiftKey) k = { x, y };
      else k = Math.abs(x - 1) > Math.abs(y - 1) ? { x, y: x } : { x: y, y };
      table.ghost.move(new DOMMatrix([k.x, 0, 0, k.y, minX * (1 - k.x), minY * (1 - k.y)]));
      table.hint([], `${table.length(width * k.x)} × ${table.length(height * k.y)}`);
    },
    end() {
      if (k.x === 1 && k.y === 1) return table.ghost.clear();
      const size = table.sizeOfPick(key);
      return act("resize", { width: mm(size.width * k.x), height: mm(size.height * k.y) });
    },
  };
}

function turning(table, key, from) {
  const [minX, minY, maxX, maxY] = table.boxOfPick(key), centre = { x: (minX + maxX) / 2, y: (minY + maxY) / 2 };
  let degrees = 0;
  table.showGhost(key);
  return {
    move(at, event) {
      degrees = turned(from, at, centre);
      degrees = event.altKey ? Math.round(degrees * 10) / 10 : Math.round(degrees / 5) * 5;
      table.ghost.move(new DOMMatrix().translate(centre.x, centre.y).rotate(degrees).translate(-centre.x, -centre.y));
      table.hint([], `${degrees}°`);
    },
    end: () => degrees ? act("turn", { degrees }) : table.ghost.clear(),
  };
}

/** The node or handle of the picked line under the pointer. */
function nodeAt(table, at) {
  const line = table.pickedLine();
  if (!line) return null;
  const path = nodes.parse(line.d), near = p => {
    const q = table.view.toScreen(...line.toTable(p));
    return Math.hypot(q.x - at.screen.x, q.y - at.screen.y) < 8;
  };
  const node = nodes.nodesOf(path).findIndex(near);
  if (node >= 0) return { line, path, node };
  const handle = nodes.handlesOf(path).find(h => near(h.at));
  return handle ? { line, path, handle } : null;
}

function bending(table, grabbed) {
  const { line, path, node, handle } = grabbed;
  table.chosenNode = node ?? null;
  let to = null;
  return {
    move(at) {
      to = line.toOwn(at);
      table.ghost.preview(nodes.write(nodes.bent(path, grabbed, to)), line.map);
      const [x, y] = line.toCard(to);
      table.hint([], `${table.length(x)}, ${table.length(y)}`);
    },
    end() {
      table.redraw();
      if (!to) return undefined;
      const [x, y] = line.toCard(to);
      return handle ? act("node-handle", { segment: handle.segment, first: handle.first, x: mm(x), y: mm(y) }) : act("node-move", { node, x: mm(x), y: mm(y) });
    },
  };
}

function drawing(table, from) {
  const grid = p => table.grid ? { x: Math.round(p.x / table.grid) * table.grid, y: Math.round(p.y / table.grid) * table.grid } : p;
  const begun = grid(from);
  let to = begun, held = false;
  return {
    move(at, event) {
      [to, held] = [grid(at), event.shiftKey];
      table.ghost.preview(preview(table.drawing, begun, to, held), [1, 0, 0, 1, 0, 0]);
      table.hint([], `${table.length(Math.abs(to.x - begun.x))} × ${table.length(Math.abs(to.y - begun.y))}`);
    },
    end() {
      const drawn = actionFor(table.drawing, begun, to, held);
      table.draw(null);
      return drawn ? act(...drawn) : table.ghost.clear();
    },
  };
}

function band(table, from) {
  let box = null;
  return {
    move(at) {
      box = [Math.min(from.x, at.x), Math.min(from.y, at.y), Math.max(from.x, at.x), Math.max(from.y, at.y)];
      table.ghost.preview(`M${box[0]} ${box[1]}H${box[2]}V${box[3]}H${box[0]}Z`, [1, 0, 0, 1, 0, 0]);
    },
    end() {
      table.ghost.clear();
      if (!box) return;
      const pieces = table.itemsWithin(box).map(i => i.piece);
      table.pick(writeKey({ pieces: [...new Set([...now().pieces, ...pieces])], lines: [] }));
    },
  };
}
