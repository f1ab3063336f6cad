// <light-table src data-modes data-follows data-empty data-picks>: pieces true to scale, zoomed by wheel, moved by space or
// middle button; where data-picks is set, pieces and lines are picked, moved and drawn by hand.
import { View } from "./view.js";
import { draw, isOnPin } from "./overlay.js";
import { drawRulers, INCH } from "./rulers.js";
import { Hints } from "./hints.js";
import { Ghost } from "./ghost.js";
import { Picking } from "./picking.js";
import { Nudge } from "./nudge.js";
import { begin } from "./gestures.js";
import { complete } from "./scene.js";
import { gridStep } from "./snap.js";
import { copies, copyOf, lineOf, now, parts, short, toggled, toggledLine, write } from "../picked.js";
import { act, mm } from "../actions.js";
import { headers } from "../requests.js";
import { nodesOf, parse } from "./nodes.js";
import { keyWith, stepCopy } from "./placing.js";

const OVERSCAN = 0.2;          // of width and height, painted beyond each edge
const QUICK = 8;               // ms; pictures painted within this are painted anew while moving
const SETTLED = 110;           // ms without movement, after which a slow picture is painted anew
const EDGES = { left: 44, right: 44, top: 66, bottom: 46 };
const MODE_NAMES = { spread: "Spread out", stacked: "Stacked" };
const NEAREST = 3, FARTHEST = 9; // mm seen to each side of a place that is looked at
const CLICK = 4;               // pixels a click may wander

class LightTable extends HTMLElement {
  #view = new View();
  #scene = null;
  #mode = null;
  #progress = null;
  #painted = null;             // view of the picture on screen
  #painting = null;            // view of the picture that is being painted
  #stale = false;
  #number = 0;
  #asking = false;             // a scene is on its way
  #expected = null;            // a head that the page will show in a moment
  #took = 0;
  #frame = 0;
  #idle = 0;
  #fitted = false;
  #picking = null;
  #hints = null;
  #hintFrame = 0;
  #hintWords = null;
  #highlight = null;
  #sent = undefined;           // what the painter knows to be picked
  #followed = null;            // the pieces that the scene was asked for with
  drawing = null;              // the shape that the next stroke draws
  nodesShown = false;
  chosenNode = null;
  grid = 0;                    // mm; 0 for none
  place = null;                // number of the pin that is looked at
  #show = { widths: true, preview: null, before: false };

  connectedCallback() {
    this.innerHTML = `<canvas class="picture" aria-hidden="true"></canvas><canvas class="ruler is-top" aria-hidden="true"></canvas><canvas class="ruler is-left" aria-hidden="true"></canvas><canvas class="ghost-picture" aria-hidden="true" hidden></canvas><svg class="ghost" aria-hidden="true"></svg><svg class="overlay" aria-hidden="true"></svg>
      <div class="surface" tabindex="0" role="application" aria-label="Light table"></div><div class="tools" role="group" aria-label="View"></div>`;
    this.canvas = this.querySelector(".picture");
    [this.top, this.left] = this.querySelectorAll(".ruler");
    this.ghost = new Ghost(this.querySelector(".ghost-picture"), this.querySelector(".ghost"), this.#view);
    this.overlay = this.querySelector("svg.overlay");
    this.nudge = new Nudge(this);
    this.#hintWords = new Hints(this);
    this.surface = this.querySelector(".surface");
    this.picture = this.canvas.getContext("bitmaprenderer");
    this.worker = new Worker(new URL("./painter.js", import.meta.url), { type: "module" });
    this.worker.onmessage = ({ data }) => this.#take(data);
    this.#tools();
    this.#pointer();
    new ResizeObserver(() => this.#resized()).observe(this);
    this.reload();
  }

  get view() { return this.#view; }
  get layout() { return this.#layout; }
  get scene() { return this.#scene; }
  get canArrange() { return this.dataset.picks === "true"; }

  /** Whole pieces are moved as they lie on the card; lines on their piece wherever it is shown. */
  get canMove() { return this.canArrange && (this.#mode === "stacked" || now().lines.length > 0); }

  itemsOf(key) { return this.#layout.items.filter(i => key.pieces.includes(i.piece)); }
  itemAt(at) { return this.#picking.itemAt(this.#layout, at, 5 / this.#view.scale); }
  lineAt(at, item, lines) { return this.#picking.lineAt(item, at, 6 / this.#view.scale, lines); }
  isInOutline(at, item) { return this.#picking.isInOutline(item, at); }
  itemsWithin(box) { return this.#picking.within(this.#layout, box); }
  boxOfPick(key) { return this.#picking.boxOf(this.#layout, key); }
  showGhost(key) { this.ghost.show(this.#picking.paths(this.#layout, key), this.boxOfPick(key)); }
  showGhostOf(items, box) { this.ghost.show(this.#picking.papers(items), box); }
  get aidBoxes() { return this.#picking.aids(this.#layout); }
  length(mm) { return this.#scene.inches ? `${(mm / INCH).toFixed(2)} in` : `${mm.toFixed(1)} mm`; }

  /** One piece is sized along its own edges, anything else along the card's. */
  sizeOfPick(key) {
    const [item] = this.itemsOf(key);
    if (key.lines.length === 0 && key.pieces.length === 1) return item.size;
    const [minX, minY, maxX, maxY] = this.boxOfPick(key);
    return { width: maxX - minX, height: maxY - minY };
  }

  /** Copies on sheets can be moved by hand. */
  get canPlace() { return Boolean(this.#scene && this.#layout.byHand); }

  /** The one picked line with its maps, or null. */
  pickedLine() {
    const key = now(), [item] = this.itemsOf(key);
    return item && key.lines.length === 1 ? this.#picking.line(item, key.lines[0]) : null;
  }

  /** The next stroke on the table draws a shape; null draws none. */
  draw(shape) {
    this.drawing = shape;
    this.classList.toggle("is-drawing", shape !== null);
    for (const b of document.querySelectorAll("[data-draw]")) b.setAttribute("aria-pressed", String(b.dataset.draw === shape));
    // Shapes are drawn where they will lie on the card.
    if (shape && this.#mode !== "stacked") this.#lay("stacked");
    if (shape) this.surface.focus();
  }

  showNodes(shown) {
    this.nodesShown = shown;
    this.chosenNode = null;
    for (const b of document.querySelectorAll("[data-nodes]")) b.setAttribute("aria-pressed", String(shown));
    this.redraw();
  }

  /** The next line of the picked piece, the next node while nodes are shown, or the next copy on a sheet. */
  stepLine(by) {
    if (this.canPlace) return stepCopy(this, by);
    const key = now(), [item] = this.itemsOf(key);
    if (!item || key.pieces.length !== 1) return;
    if (this.nodesShown) {
      const count = nodesOf(parse(this.pickedLine().d)).length;
      this.chosenNode = ((this.chosenNode ?? (by > 0 ? -1 : 0)) + by + count) % count;
      return this.redraw();
    }
    const at = item.lines.findIndex(l => lineOf(item.piece, l.id) === key.lines[0]), to = item.lines[(at + by + (at < 0 && by < 0 ? 1 : 0) + item.lines.length) % item.lines.length];
    this.pick(write({ pieces: key.pieces, lines: [lineOf(item.piece, to.id)] }));
  }

  /** Moves the chosen node, in millimetres of the table; false where none is chosen. */
  moveNode(dx, dy) {
    const line = this.nodesShown && this.chosenNode !== null && this.pickedLine();
    if (!line) return false;
    const [x, y] = line.toTable(nodesOf(parse(line.d))[this.chosenNode]), [toX, toY] = line.toCard(line.toOwn({ x: x + dx, y: y + dy }));
    act("node-move", { node: this.chosenNode, x: mm(toX), y: mm(toY) });
    return true;
  }

  /** Words and guide lines of a gesture under way; null when it has ended. */
  hint(lines, text) {
    this.#hints = lines ? { lines, text } : null;
    this.#hintFrame ||= requestAnimationFrame(() => {
      this.#hintFrame = 0;
      if (this.#hints) this.#hintWords.show(this.#view, this.#hints.lines, this.#hints.text);
      else this.#hintWords.clear();
    });
  }

  redraw() { if (this.#scene) this.#changed(); }

  pick(key) {
    this.dispatchEvent(new CustomEvent("picked-on-table", { bubbles: true, detail: { key } }));
  }

  /** A piece to be seen whatever is picked, such as one that a note speaks of. */
  highlight(piece) {
    this.#highlight = piece;
    this.#changed(true);
  }

  get modes() { return (this.dataset.modes ?? "").split(" ").filter(Boolean); }
  get #layout() { return this.#scene.layouts.find(l => l.name === this.#mode) ?? this.#scene.layouts[0]; }

  /** Fetches the scene again; the view stays unless there was nothing before. */
  async reload(refit = false) {
    const asked = ++this.#number;
    this.#asking = true;
    const answer = await this.#ask();
    if (!answer.ok || asked !== this.#number) return;
    if (this.#followed !== now().pieces.join()) this.place = null;
    this.#followed = now().pieces.join();
    this.#show.preview = null;
    const hadNothing = !this.#scene || this.#isEmpty, sheets = this.#sheetCount;
    const scene = await answer.json();
    if (asked !== this.#number) return;
    this.#asking = false;
    this.worker.postMessage({ scene });
    this.#scene = complete(scene, this.#scene);
    this.#mode ??= this.modes[0] ?? this.#scene.layouts[0].name;
    this.#picking = new Picking(this.#scene);
    this.ghost.clear();
    this.nudge.forget();
    this.hint(null);
    this.#sayEmpty();
    // Another sheet is brought into view.
    if (hadNothing || refit || !this.#fitted || sheets !== this.#sheetCount) this.fit();
    else {
      this.#changed(true);
      this.#paint();
    }
    this.dataset.ready = String(this.#scene.head);
    if (!this.#expected) this.#compare();
  }

  /** The page is about to show another head: the table need not wait until ledger and tray are in place. */
  expect(head) {
    if (this.dataset.follows || !this.#scene) return;
    this.#expected = head;
    this.reload();
  }

  /** The page shows another head. */
  showsHead(head) {
    const isOnItsWay = this.#expected === head;
    this.#expected = null;
    if (!isOnItsWay) this.reload();
    else if (!this.#asking) this.#compare();
  }

  // The project may have moved on between page and scene.
  #compare() {
    if (this.dataset.ready !== document.body.dataset.head) this.dispatchEvent(new CustomEvent("scene-differs", { bubbles: true }));
  }

  // The scene, without pieces that are here already in the very same form.
  #ask() {
    const url = new URL(this.getAttribute("src"), location.href);
    if (document.body.dataset.selected) url.searchParams.set("at", short(document.body.dataset.selected));
    if (!this.#scene) return fetch(url);
    return fetch(url, { method: "POST", headers: headers(), body: new URLSearchParams({ have: Object.values(this.#scene.pieces).map(p => p.version).join(" ") }) });
  }

  get #sheetCount() { return this.#scene ? this.#layout.frames.filter(f => f.sheet).length : 0; }
  get #isEmpty() { return this.#scene.layouts.every(l => l.items.length + l.loose.length + l.frames.length === 0); }

  select() {
    this.showNodes(false);
    // What else stands in the key does not change what is shown.
    const pieces = now().pieces.join();
    if (this.dataset.follows && pieces !== this.#followed) this.reload(true);
    else this.#changed(true);
  }

  fit() {
    if (!this.#scene || this.clientWidth === 0) return;
    const edges = { ...EDGES };
    if (document.querySelector(".over-card") && innerWidth > 720) edges.left = edges.right = Math.min(300, this.clientWidth / 3);
    this.#view.fit(this.#layout.box, this.clientWidth, this.clientHeight, edges);
    this.#fitted = true;
    this.#changed(true);
  }

  zoom(factor) {
    this.#view.zoomAt(this.clientWidth / 2, this.clientHeight / 2, factor);
    this.#changed();
  }

  /** Looks at a pin from near by, with all of its reach in view. */
  lookAt({ x, y, reach }, place = null) {
    this.place = place;
    const half = Math.min(FARTHEST, Math.max(NEAREST, reach * 0.7));
    this.#view.fit([x - half, y - half, x + half, y + half], this.clientWidth, this.clientHeight, EDGES);
    this.#changed(true);
  }

  /** Widths painted along the thin material, or not. */
  showWidths(shown) { this.#paintWith({ widths: shown }); }

  /** What a command would change, as path data of the table; null for nothing. */
  showPreview(paths) { this.#paintWith({ preview: paths }); }

  /** The preview is taken off while this holds. */
  showBefore(held) { this.#paintWith({ before: held }); }

  #paintWith(change) {
    Object.assign(this.#show, change);
    if (this.#scene) this.#changed(true);
  }

  /** Brings a place of the table into the middle. */
  centre(x, y) {
    const p = this.#view.toScreen(x, y);
    this.#view.pan(this.clientWidth / 2 - p.x, this.clientHeight / 2 - p.y);
    this.#changed();
  }

  nextMode() {
    const modes = this.modes;
    if (modes.length < 2) return;
    this.#lay(modes[(modes.indexOf(this.#mode) + 1) % modes.length]);
  }

  /** Lines before the progress stand out, those after it are faint; null shows all alike. */
  showProgress(progress) {
    if (JSON.stringify(progress) === JSON.stringify(this.#progress)) return;
    this.#progress = progress;
    if (this.#scene) this.#changed(true);
  }

  #lay(mode) {
    this.#mode = mode;
    for (const b of this.querySelectorAll("[data-mode]")) b.setAttribute("aria-pressed", String(b.dataset.mode === mode));
    this.fit();
  }

  #tools() {
    const tools = this.querySelector(".tools");
    for (const [i, mode] of this.modes.entries()) {
      const b = document.createElement("button");
      Object.assign(b, { type: "button", textContent: MODE_NAMES[mode] ?? mode, onclick: () => this.#lay(mode) });
      b.dataset.mode = mode;
      b.setAttribute("aria-pressed", String(i === 0));
      tools.append(b);
    }
    if (this.canArrange) {
      const grid = document.createElement("button");
      Object.assign(grid, { type: "button", textContent: "Grid", onclick: () => this.toggleGrid() });
      grid.dataset.grid = "";
      grid.setAttribute("aria-pressed", "false");
      tools.append(grid);
    }
    const fit = document.createElement("button");
    Object.assign(fit, { type: "button", textContent: "Fit", onclick: () => this.fit() });
    tools.append(fit);
  }

  toggleGrid() {
    if (!this.canArrange || !this.#scene) return;
    this.grid = this.grid ? 0 : gridStep(this.#scene.inches);
    this.querySelector("[data-grid]").setAttribute("aria-pressed", String(this.grid > 0));
    this.redraw();
  }

  #sayEmpty() {
    this.querySelector(".empty-word")?.remove();
    if (!this.#isEmpty || !this.dataset.empty) return;
    const word = document.createElement("p");
    word.className = "empty-word";
    word.textContent = this.dataset.empty;
    this.insertBefore(word, this.surface);
  }

  #pointer() {
    const s = this.surface;
    let drag = null, space = false, fingers = new Map(), gesture = null;
    s.addEventListener("wheel", e => {
      e.preventDefault();
      const r = s.getBoundingClientRect();
      const lines = e.deltaMode === 1 ? 16 : 1;
      this.#view.zoomAt(e.clientX - r.left, e.clientY - r.top, Math.exp(-e.deltaY * lines * (e.ctrlKey ? 0.01 : 0.0016)));
      this.#changed();
    }, { passive: false });
    s.addEventListener("pointerdown", e => {
      s.setPointerCapture(e.pointerId);
      fingers.set(e.pointerId, { x: e.clientX, y: e.clientY });
      drag = { x: e.clientX, y: e.clientY, moved: 0 };
      gesture = fingers.size === 1 && !space && this.#scene ? begin(this, e, this.#at(e)) : null;
      if (e.button === 1) e.preventDefault();
    });
    s.addEventListener("pointermove", e => {
      if (!drag || !fingers.has(e.pointerId)) return;
      const before = fingers.get(e.pointerId), now = { x: e.clientX, y: e.clientY };
      if (fingers.size === 2) {
        const other = [...fingers].find(([id]) => id !== e.pointerId)[1], r = s.getBoundingClientRect();
        const span = p => Math.hypot(p.x - other.x, p.y - other.y);
        this.#view.zoomAt((now.x + other.x) / 2 - r.left, (now.y + other.y) / 2 - r.top, span(now) / Math.max(1, span(before)));
      }
      fingers.set(e.pointerId, now);
      drag.moved += Math.hypot(now.x - before.x, now.y - before.y);
      if (drag.moved < CLICK) return;
      if (gesture) {
        gesture.move(this.#at(e), e);
        return;
      }
      this.classList.add("is-panning");
      this.#view.pan((now.x - before.x) / fingers.size, (now.y - before.y) / fingers.size);
      this.#changed();
    });
    const end = e => {
      if (drag && drag.moved < CLICK && e.type === "pointerup" && e.button === 0 && !space) this.#pick(e);
      if (gesture) {
        // What was not moved is only touched; what was called off by another finger stays as it was.
        if (drag?.moved >= CLICK && e.type === "pointerup") gesture.end();
        else this.ghost.clear();
        this.hint(null);
        gesture = null;
      }
      fingers.delete(e.pointerId);
      if (fingers.size === 0) drag = null;
      this.classList.remove("is-panning");
    };
    s.addEventListener("pointerup", end);
    s.addEventListener("pointercancel", end);
    s.addEventListener("keydown", e => {
      const by = { ArrowLeft: [60, 0], ArrowRight: [-60, 0], ArrowUp: [0, 60], ArrowDown: [0, -60] }[e.key];
      if (by && this.nudge.takes) return;
      if (by) this.#view.pan(...by);
      else if (e.key === " ") space = true;
      else if (this.#nodeKey(e.key)) e.stopPropagation();
      else return;
      e.preventDefault();
      this.#changed();
    });
    s.addEventListener("keyup", e => { if (e.key === " ") space = false; });
    s.addEventListener("dblclick", e => this.#addNode(e));
    s.addEventListener("blur", () => { space = false; });
  }

  // A touch picks the piece; on the piece that is picked already it picks the line there. With Shift it adds to the pick.
  #pick(e) {
    if (!this.#scene) return;
    const at = this.#at(e), key = now(), item = this.itemAt(at);
    const pin = this.#layout.pins.find(p => p.reach && isOnPin(this.#view.toScreen(p.x, p.y), at.screen));
    if (pin) return this.dispatchEvent(new CustomEvent("pin-touched", { bubbles: true, detail: pin.number }));
    if (this.canPlace) return this.#pickCopy(item, e.shiftKey);
    if (!this.canArrange) return item && this.pick(item.piece);
    const only = key.pieces.length === 1 ? this.itemsOf(key)[0] : null;
    // With lines picked, a line of any piece is added to them by Shift.
    const on = e.shiftKey && key.lines.length ? item ?? only : only, line = on && this.lineAt(at, on);
    if (line && (!item || item === on || key.lines.length)) return this.pick(write(e.shiftKey && key.lines.length ? toggledLine(key, line) : { pieces: [parts(line).piece], lines: [line] }));
    if (!item) return this.pick("none");
    this.pick(e.shiftKey ? write(toggled(key, item.piece)) : item.piece);
  }

  #pickCopy(item, adds) {
    const before = copies(), copy = item && copyOf(item);
    this.pick(keyWith(this.#layout, !item ? [] : !adds ? [copy] : before.includes(copy) ? before.filter(c => c !== copy) : [...before, copy]));
  }

  #at(e) {
    const r = this.surface.getBoundingClientRect(), screen = { x: e.clientX - r.left, y: e.clientY - r.top };
    return { ...this.#view.toTable(screen.x, screen.y), screen };
  }

  // A touch on the line with its nodes shown puts one more node there.
  #addNode(e) {
    const line = this.nodesShown && this.pickedLine();
    const found = line && this.#picking.nearestOn(line, this.#at(e));
    if (!found || found.distance > 8 / this.#view.scale) return;
    act("node-add", { segment: found.segment, percent: (found.t * 100).toFixed(2) });
  }

  #nodeKey(key) {
    const word = { Delete: "delete", Backspace: "delete", s: "smooth", c: "corner" }[key];
    if (!this.nodesShown || this.chosenNode === null || !word) return false;
    act(`node-${word}`, { node: this.chosenNode });
    return true;
  }

  get #selected() {
    if (this.canPlace) return { pieces: [], lines: [], copies: copies() };
    return this.dataset.follows ? null : now();
  }

  #resized() {
    if (!this.#fitted && this.#scene) this.fit();
    else if (this.#scene) this.#changed(true);
  }

  // The view or what it shows has changed: move the picture at once, paint a new one when that is due.
  #changed(repaint = false) {
    if (repaint) this.#stale = true;
    if (!this.#scene) return;
    this.#frame ||= requestAnimationFrame(() => {
      this.#frame = 0;
      this.#place();
      drawRulers(this.top, this.left, { view: this.#view, width: this.clientWidth, height: this.clientHeight, inches: this.#scene.inches });
      draw(this.overlay, {
        view: this.#view, width: this.clientWidth, height: this.clientHeight, layout: this.#layout,
        selected: this.#selected, inches: this.#scene.inches, head: this.#progress?.head, table: this,
        place: this.place, grid: this.grid, nodes: this.nodesShown ? this.pickedLine() : null, chosenNode: this.chosenNode,
      });
      this.ghost.follow();
      if (repaint || this.#took <= QUICK) this.#paint();
      clearTimeout(this.#idle);
      this.#idle = setTimeout(() => this.#paint(), SETTLED);
    });
  }

  #paint() {
    const v = this.#view, p = this.#painting ?? this.#painted;
    if (!this.#stale && p && p.scale === v.scale && p.x === v.x && p.y === v.y) return;
    this.#stale = true;
    if (this.#painting) return;
    this.#stale = false;
    this.#painting = v.copy();
    const [w, h] = [this.clientWidth, this.clientHeight], [ox, oy] = [Math.round(w * OVERSCAN), Math.round(h * OVERSCAN)];
    const selected = this.#selected, isOther = selected !== this.#sent;
    this.#sent = selected;
    this.worker.postMessage({
      paint: {
        view: { scale: v.scale, x: v.x + ox, y: v.y + oy }, width: w + 2 * ox, height: h + 2 * oy, pixelRatio: devicePixelRatio, layout: this.#mode,
        selected: isOther ? selected : undefined, highlight: this.#highlight, progress: this.#progress, show: this.#show,
        number: { shown: v.copy(), ox, oy, w: w + 2 * ox, h: h + 2 * oy },
      },
    });
  }

  #take({ picture, took, number }) {
    this.#painting = null;
    this.#took = took;
    this.canvas.width = picture.width;
    this.canvas.height = picture.height;
    this.canvas.style.width = `${number.w}px`;
    this.canvas.style.height = `${number.h}px`;
    this.picture.transferFromImageBitmap(picture);
    this.#painted = { ...number.shown, ox: number.ox, oy: number.oy };
    this.#place();
    this.dataset.painted = String(Number(this.dataset.painted ?? 0) + 1);
    if (this.#stale || this.#took <= QUICK) this.#paint();
  }

  // Where the painted picture belongs under the present view.
  #place() {
    const p = this.#painted, v = this.#view;
    if (!p) return;
    const k = v.scale / p.scale;
    this.canvas.style.transform = `translate(${v.x - (p.x + p.ox) * k}px, ${v.y - (p.y + p.oy) * k}px) scale(${k})`;
  }
}

customElements.define("light-table", LightTable);
