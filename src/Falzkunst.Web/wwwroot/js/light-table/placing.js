// By hand at Sheets: copies are dragged, turned and pinned where they lie. Whether they may lie somewhere is told by the
// server, which is asked while the hand moves; it also finds the nearest place where they may.
import { post } from "../actions.js";
import { copies, copyOf, now } from "../picked.js";
import { around, boxOf } from "./boxes.js";
import { handlesOf, isNear, turned } from "./handles.js";

/** The items that are picked, in the scene as it is. */
export const pickedOf = layout => layout.byHand ? layout.items.filter(i => copies().includes(copyOf(i))) : [];

export const boxOfItems = items => around(items.map(boxOf));

/** The selection with other copies picked. */
export function keyWith(layout, picked) {
  const [stock = layout.byHand] = now().pieces;
  return picked.length ? `${stock}:${picked.join(",")}` : stock;
}

/** The handle that turns what is picked. */
export const turnHandle = (view, items) => handlesOf(view, boxOfItems(items)).find(h => h.kind === "turn");

export function begin(table, at) {
  const picked = pickedOf(table.layout);
  if (picked.length && isNear(turnHandle(table.view, picked), at.screen)) return turning(table, together(picked, picked[0]), at);
  const item = table.itemAt(at);
  return item ? moving(table, picked.includes(item) ? together(picked, item) : [item], at) : null;
}

/** Those on the sheet of one of them. */
const together = (items, one) => items.filter(i => i.sheet === one.sheet);

const sheetOf = (layout, id) => layout.frames.find(f => f.sheet === id);

function sheetAt(layout, { x, y }) {
  return layout.frames.find(f => f.sheet && x >= f.box[0] && x <= f.box[2] && y >= f.box[1] && y <= f.box[3]);
}

/** A move in the words of the server; lengths in the coordinates of the sheets. */
function words(table, items, to, degrees, about, by, holds) {
  const from = sheetOf(table.layout, items[0].sheet), n = v => Number(v.toFixed(6));
  return {
    sheet: items[0].sheet, copies: items.map(copyOf).join(), to: to.sheet, holds,
    degrees, aboutX: n(about.x - from.box[0]), aboutY: n(about.y), x: n(by.x + from.box[0] - to.box[0]), y: n(by.y),
  };
}

/** Asks where copies would lie, one question after the other; of those that pile up only the last. */
class Asking {
  #table;
  #isAsking = false;
  #next = null;
  #isOver = false;

  constructor(table) { this.#table = table; }

  async ask(question) {
    this.#next = question;
    if (this.#isAsking) return;
    this.#isAsking = true;
    while (this.#next && !this.#isOver) {
      const asked = this.#next;
      this.#next = null;
      const answer = await fetch(`?handler=Lies&${new URLSearchParams(asked.words)}`).catch(() => null);
      if (answer?.ok && !this.#isOver) asked.show(await answer.json());
    }
    this.#isAsking = false;
  }

  end() { this.#isOver = true; }
}

function gesture(table, items, read) {
  const asking = new Asking(table), box = boxOfItems(items), about = { x: (box[0] + box[2]) / 2, y: (box[1] + box[3]) / 2 };
  let last = null;
  table.showGhostOf(items, box);
  return {
    move(at, event) {
      const { degrees, by, to, text } = read(at, event, about), holds = !event.altKey;
      table.ghost.move(mapOf(degrees, about, by));
      last = to && { words: words(table, items, to, degrees, about, by, holds), isMove: degrees !== 0 || by.x !== 0 || by.y !== 0 };
      if (!to) {
        table.ghost.landing(null);
        table.hint([], "Drop it on a sheet of this stock.");
        return;
      }
      const from = sheetOf(table.layout, items[0].sheet);
      asking.ask({
        words: last.words,
        show: ({ x, y, why }) => {
          const there = mapOf(degrees, about, { x: x - from.box[0] + to.box[0], y });
          table.ghost.landing(why ? mapOf(degrees, about, by) : there, Boolean(why));
          table.hint([], why ?? text);
        },
      });
    },
    end() {
      asking.end();
      if (!last?.isMove) return table.ghost.clear();
      table.pick(keyWith(table.layout, items.map(copyOf)));
      return post("Move", last.words);
    },
  };
}

const mapOf = (degrees, about, by) => new DOMMatrix().translate(about.x + by.x, about.y + by.y).rotate(degrees).translate(-about.x, -about.y);

function moving(table, items, from) {
  return gesture(table, items, at => {
    const by = { x: at.x - from.x, y: at.y - from.y };
    return { degrees: 0, by, to: sheetAt(table.layout, at), text: `${table.length(by.x)}, ${table.length(by.y)}` };
  });
}

function turning(table, items, from) {
  return gesture(table, items, (at, event, about) => {
    const step = event.shiftKey ? 1 : 15, degrees = Math.round(turned(from, at, about) / step) * step;
    return { degrees, by: { x: 0, y: 0 }, to: sheetOf(table.layout, items[0].sheet), text: `${degrees}°` };
  });
}

/** Moves or turns what is picked, by a key or a button; only the pieces on one sheet at a time. */
export function act(table, degrees, by) {
  const picked = pickedOf(table.layout);
  if (picked.length === 0) return;
  const items = together(picked, picked[0]), [minX, minY, maxX, maxY] = boxOfItems(items);
  post("Move", words(table, items, sheetOf(table.layout, items[0].sheet), degrees, { x: (minX + maxX) / 2, y: (minY + maxY) / 2 }, by, true));
}

/** Picks the copy before or after the picked one. */
export function stepCopy(table, by) {
  const { items } = table.layout;
  if (items.length === 0) return;
  const at = items.findIndex(i => copies().includes(copyOf(i)));
  const next = items[at < 0 ? (by > 0 ? 0 : items.length - 1) : (at + by + items.length) % items.length];
  table.pick(keyWith(table.layout, [copyOf(next)]));
}

document.addEventListener("click", event => {
  const button = event.target.closest("[data-turn]");
  if (button) act(document.querySelector("light-table"), Number(button.dataset.turn), { x: 0, y: 0 });
});
