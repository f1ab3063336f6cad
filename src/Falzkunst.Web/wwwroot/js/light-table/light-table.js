// @ts-check
// <light-table src data-modes data-follows data-empty data-picks>: pieces true to scale, zoomed by wheel, moved by space or
// middle button; where data-picks is set, pieces and lines are picked, moved and drawn by hand. The parts are in their own
// modules: SceneStore fetches, Picture paints, HitTest answers, tools/ have what a hand does; this one puts them together.
import { copies, now } from "../picked.js";
import { Camera } from "./camera.js";
import { Ghost } from "./ghost.js";
import { Hints } from "./hints.js";
import { NodeEdit } from "./node-edit.js";
import { Nudge } from "./nudge.js";
import { draw as drawOverlay } from "./overlay.js";
import { touchedOf } from "./touched.js";
import { isOnPin } from "./pins.js";
import { PagePreview } from "./page-preview.js";
import { Picture } from "./picture.js";
import { listen } from "./pointer.js";
import { drawRulers, INCH } from "./rulers.js";
import { SceneStore } from "./scene-store.js";
import { Sight } from "./sight.js";
import { gridStep } from "./snap.js";
import * as toolbar from "./toolbar.js";
import { printOf } from "./prints.js";
import { tiesOf } from "./ties.js";
import { begin } from "./tools/begin.js";
import { keyAfterStep, keyAfterTouch } from "./tools/choose.js";
import { View } from "./view.js";

const INNER = `<canvas class="picture" aria-hidden="true"></canvas><canvas class="ruler is-top" aria-hidden="true"></canvas><canvas class="ruler is-left" aria-hidden="true"></canvas><canvas class="ghost-picture" aria-hidden="true" hidden></canvas><svg class="ghost" aria-hidden="true"></svg><svg class="overlay" aria-hidden="true"></svg>
  <div class="surface" tabindex="0" role="application" aria-label="Light table"></div><div class="tools" role="group" aria-label="View"></div>`;

export class LightTable extends HTMLElement {
  view = new View();
  camera = new Camera(this, this.view, () => this.#changed());
  nodes = new NodeEdit(this);
  nudge = new Nudge(this);
  /** mm; 0 for none */
  grid = 0;
  /** @type {import("./tools/draw.js").Shape | null} the shape that the next stroke draws */
  drawing = null;
  /** @type {{ holds(at: TablePoint): boolean, begin(at: TablePoint): Gesture | null } | null} what the hand does while words are written */
  writer = null;
  /** @type {number | null} number of the pin that is looked at */
  place = null;
  /** @type {Ghost} */
  ghost;
  /** @type {SceneStore} */
  #store;
  /** @type {Picture} */
  #picture;
  #preview = new PagePreview((key, bitmap) => this.#picture.putPage(key, bitmap));
  /** @type {Sight} */
  sight;
  /** @type {Hints} */
  #hintWords;
  /** @type {{ lines: Hint[], text: string } | null} */
  #hints = null;
  #hintFrame = 0;
  #frame = 0;
  #isDue = false;
  #isFitted = false;
  /** The view as fitting left it. */
  #fitView = "";
  /** @type {Progress | null} */
  #progress = null;
  /** @type {string | null} */
  #highlight = null;
  /** @type {Shown} */
  #show = { widths: true, what: "both", preview: null, before: false };

  connectedCallback() {
    this.innerHTML = INNER;
    const surface = this.#part("div.surface");
    this.ghost = new Ghost(/** @type {HTMLCanvasElement} */ (this.#part(".ghost-picture")), this.#part("svg.ghost"), this.view);
    this.#hintWords = new Hints(this);
    this.#store = new SceneStore({
      address: this.getAttribute("src") ?? "",
      modes: this.modes,
      follows: Boolean(this.dataset.follows),
      arrived: (a) => this.#arrived(a),
      differs: () => this.dispatchEvent(new CustomEvent("scene-differs", { bubbles: true })),
    });
    this.sight = new Sight(this.#store, this.view);
    this.#picture = new Picture(this, /** @type {HTMLCanvasElement} */ (this.#part(".picture")), this.view, () => ({
      layout: this.layout.name,
      selected: this.#selected,
      highlight: this.#highlight,
      progress: this.#progress,
      show: this.#show,
    }));
    toolbar.fill(this.#part(".tools"), {
      modes: this.modes,
      hasGrid: this.canArrange,
      lay: (mode) => this.#lay(mode),
      toggleGrid: () => this.toggleGrid(),
      cycleWhat: () => this.#cycleWhat(),
      fit: () => this.fit(),
    });
    listen(this, surface, this.view, {
      begin: (e) => (this.scene ? begin(this, e, this.placeOf(e)) : null),
      at: (e) => this.placeOf(e),
      touch: (e) => this.#touch(e),
      cancel: () => this.ghost.clear(),
      over: () => this.hint(null),
      takesArrows: () => this.nudge.takes,
      changed: () => this.#changed(),
    });
    surface.addEventListener("keydown", (/** @type {KeyboardEvent} */ e) => {
      if (!this.nodes.key(e.key)) return;
      e.preventDefault();
      e.stopPropagation();
    });
    surface.addEventListener("dblclick", (/** @type {MouseEvent} */ e) => this.nodes.add(this.placeOf(e)));
    // A view of everything stays one when the window changes its size; a view that a hand chose stays where it is.
    new ResizeObserver(() => (this.#isFitted && !this.#isAtFit ? this.#changed(true) : this.fit())).observe(this);
    this.reload();
  }

  // What is shown

  get scene() {
    return this.#store.scene;
  }

  get layout() {
    return this.#store.layout;
  }

  get modes() {
    return (this.dataset.modes ?? "").split(" ").filter(Boolean);
  }

  get canArrange() {
    return this.dataset.picks === "true";
  }

  /** Whole pieces are moved as they lie on the card; lines on their piece wherever it is shown. */
  get canMove() {
    return this.canArrange && (this.#store.mode === "stacked" || now().lines.length > 0);
  }

  /** Copies on sheets can be moved by hand. */
  get canPlace() {
    return Boolean(this.scene && this.layout.byHand);
  }

  /** Fetches the scene again; the view stays unless there was nothing before. */
  async reload(refit = false) {
    if (refit) this.#isFitted = false;
    await this.#store.reload();
  }

  /** @param {import("./scene-store.js").Arrival} arrival */
  #arrived({ sent, hadNothing, hasOtherSheets }) {
    this.#picture.setScene(sent);
    this.#preview.follow(this.#store.loaded);
    toolbar.showWhat(
      this.#part(".tools"),
      this.#show.what,
      Object.values(this.#store.loaded.pieces).some((p) => p.prints) && !this.layout.pages,
    );
    this.sight.look();
    if (!this.#isSamePick()) this.place = null;
    this.#show.preview = null;
    this.ghost.clear();
    this.nudge.forget();
    this.nodes.reload();
    this.hint(null);
    this.#sayEmpty();
    // Another sheet is brought into view.
    if (hadNothing || !this.#isFitted || hasOtherSheets) this.fit();
    else {
      this.#changed(true);
      this.#picture.paint();
    }
    this.dataset.ready = String(this.#store.loaded.head);
  }

  /** @type {string | null} */
  #pickShown = null;

  #isSamePick() {
    const pick = now().pieces.join();
    const isSame = pick === this.#pickShown;
    this.#pickShown = pick;
    return isSame;
  }

  /**
   * The page is about to show another head.
   * @param {string} head
   */
  expect(head) {
    this.#store.expect(head);
  }

  /**
   * The page shows another head.
   * @param {string} head
   */
  showsHead(head) {
    this.#store.showsHead(head);
  }

  /** Something else is picked. */
  select() {
    this.nodes.show(false);
    if (this.#store.isBehindPick) this.reload(true);
    else this.#changed(true);
  }

  /**
   * A piece to be seen whatever is picked, such as one that a note speaks of.
   * @param {string | null} piece
   */
  highlight(piece) {
    this.#highlight = piece;
    this.#changed(true);
  }

  /**
   * Lines before the progress stand out, those after it are faint; null shows all alike.
   * @param {Progress | null} progress
   */
  showProgress(progress) {
    if (JSON.stringify(progress) === JSON.stringify(this.#progress)) return;
    this.#progress = progress;
    this.#changed(true);
  }

  /** Widths painted along the thin material, or not. */
  showWidths(/** @type {boolean} */ widths) {
    this.#paintWith({ widths });
  }

  /** What a command would change, as path data of the table; null for nothing. */
  showPreview(/** @type {PreviewPath[] | null} */ preview) {
    this.#paintWith({ preview });
  }

  /** The preview is taken off while this holds. */
  showBefore(/** @type {boolean} */ before) {
    this.#paintWith({ before });
  }

  /** @param {Partial<Shown>} change */
  #paintWith(change) {
    Object.assign(this.#show, change);
    this.#changed(true);
  }

  redraw() {
    this.#changed();
  }

  // The view

  get #isAtFit() {
    return this.#fitView === this.view.state;
  }

  fit() {
    if (!this.scene || this.clientWidth === 0) return;
    this.camera.fit(this.layout.box);
    this.#isFitted = true;
    this.#fitView = this.view.state;
    this.#changed(true);
  }

  /**
   * Looks at a pin from near by.
   * @param {{ x: number, y: number, reach?: number }} pin
   * @param {number | null} place its number
   */
  lookAt(pin, place = null) {
    this.place = place;
    this.camera.lookAt(pin);
    this.#changed(true);
  }

  nextMode() {
    const modes = this.modes;
    if (modes.length < 2) return;
    this.#lay(modes[(modes.indexOf(this.#store.mode ?? "") + 1) % modes.length]);
  }

  /** What is printed, what tools run, or both. */
  #cycleWhat() {
    const all = /** @type {Shown["what"][]} */ (["both", "printed", "cut"]);
    this.#paintWith({ what: all[(all.indexOf(this.#show.what) + 1) % all.length] });
    toolbar.showWhat(this.#part(".tools"), this.#show.what, true);
  }

  toggleGrid() {
    if (!this.canArrange || !this.scene) return;
    this.grid = this.grid ? 0 : gridStep(this.scene.inches);
    toolbar.showGrid(this.#part(".tools"), this.grid > 0);
    this.redraw();
  }

  /** @param {string} mode */
  #layInPlace(mode) {
    const middle = () => {
      const [a, b, c, d] = now().pieces.length ? this.sight.boxOfPick(now()) : this.layout.box;
      return this.view.toScreen((a + c) / 2, (b + d) / 2);
    };
    const before = now().pieces.length ? middle() : { x: this.clientWidth / 2, y: this.clientHeight / 2 };
    this.#store.mode = mode;
    toolbar.showMode(this.#part(".tools"), mode);
    const after = middle();
    this.view.pan(before.x - after.x, before.y - after.y);
    this.#changed(true);
  }

  /** @param {string} mode */
  #lay(mode) {
    this.#store.mode = mode;
    toolbar.showMode(this.#part(".tools"), mode);
    this.fit();
  }

  // What the tools ask

  /** @param {number} mm */
  length(mm) {
    return this.scene?.inches ? `${(mm / INCH).toFixed(2)} in` : `${mm.toFixed(1)} mm`;
  }

  /** @param {Picked} key */
  showGhost(key) {
    this.ghost.show(this.sight.pathsOfPick(key), this.sight.boxOfPick(key));
  }

  /**
   * @param {SceneItem[]} items
   * @param {Box} box
   */
  showGhostOf(items, box) {
    this.ghost.show(this.sight.papers(items), box);
  }

  /**
   * Words and guide lines of a gesture under way; null when it has ended.
   * @param {Hint[] | null} lines
   * @param {string} text
   */
  hint(lines, text = "") {
    this.#hints = lines ? { lines, text } : null;
    this.#hintFrame ||= requestAnimationFrame(() => {
      this.#hintFrame = 0;
      if (this.#hints) this.#hintWords.show(this.view, this.#hints.lines, this.#hints.text);
      else this.#hintWords.clear();
    });
  }

  /**
   * The next stroke on the table draws a shape; null draws none.
   * @param {import("./tools/draw.js").Shape | null} shape
   */
  draw(shape) {
    this.drawing = shape;
    this.classList.toggle("is-drawing", shape !== null);
    for (const b of /** @type {NodeListOf<HTMLElement>} */ (document.querySelectorAll("[data-draw]")))
      b.setAttribute("aria-pressed", String(b.dataset.draw === shape));
    // Shapes are drawn where they will lie on the card; the zoom stays, and what is picked stays where it is seen.
    if (shape && this.#store.mode !== "stacked") this.#layInPlace("stacked");
    if (shape) this.#part(".surface").focus();
  }

  // Picking

  /** @param {string} key */
  pick(key) {
    this.dispatchEvent(new CustomEvent("picked-on-table", { bubbles: true, detail: { key } }));
  }

  /**
   * The next line of the picked piece, the next node while nodes are shown, or the next copy on a sheet.
   * @param {number} by 1 or -1
   */
  stepLine(by) {
    if (this.nodes.isShown && !this.canPlace) this.nodes.step(by);
    else {
      const next = keyAfterStep(this, by);
      if (next) this.pick(next);
    }
  }

  /** @param {PointerEvent} e */
  #touch(e) {
    if (!this.scene) return;
    const at = this.placeOf(e);
    if (this.writer?.holds(at)) return;
    const pin = this.layout.pins.find((p) => p.reach && isOnPin(this.view.toScreen(p.x, p.y), at.screen));
    const key = keyAfterTouch(this, at, e.shiftKey);
    if (pin) this.dispatchEvent(new CustomEvent("pin-touched", { bubbles: true, detail: pin.number }));
    else if (key) this.pick(key);
  }

  get #selected() {
    if (this.canPlace) return { pieces: [], lines: [], copies: copies() };
    return this.dataset.follows ? null : now();
  }

  // Drawing

  // The view or what it shows has changed; with `repaint` the picture is of the past.
  #changed(repaint = false) {
    if (repaint) {
      this.#picture.outdate();
      this.#isDue = true;
    }
    if (!this.scene) return;
    this.#frame ||= requestAnimationFrame(() => {
      this.#frame = 0;
      this.#draw();
      this.#picture.follow(this.#isDue);
      this.#isDue = false;
    });
  }

  #draw() {
    const { clientWidth: width, clientHeight: height } = this;
    const { inches } = this.#store.loaded;
    const [top, left] = /** @type {NodeListOf<HTMLCanvasElement>} */ (this.querySelectorAll(".ruler"));
    drawRulers(top, left, { view: this.view, width, height, inches });
    drawOverlay(this.#part("svg.overlay"), {
      view: this.view,
      width,
      height,
      layout: this.layout,
      selected: this.#selected,
      inches,
      head: this.#progress?.head ?? null,
      length: (mm) => this.length(mm),
      hasHandles: this.canArrange,
      boxOfPick: (key) => this.sight.boxOfPick(key),
      place: this.place,
      grid: this.grid,
      nodes: this.nodes.drawn,
      ties: tiesOf(this),
      print: printOf(this),
      touched: touchedOf(this.sight, this.layout),
    });
    this.ghost.follow();
  }

  #sayEmpty() {
    this.querySelector(".empty-word")?.remove();
    if (!this.#store.isEmpty || !this.dataset.empty) return;
    const word = document.createElement("p");
    word.className = "empty-word";
    word.textContent = this.dataset.empty;
    this.insertBefore(word, this.#part(".surface"));
  }

  /** @param {MouseEvent} e */
  placeOf(e) {
    const r = this.#part(".surface").getBoundingClientRect();
    const screen = { x: e.clientX - r.left, y: e.clientY - r.top };
    return { ...this.view.toTable(screen.x, screen.y), screen };
  }

  /** @returns {any} a part of the table itself */
  #part(/** @type {string} */ which) {
    return this.querySelector(which);
  }
}

customElements.define("light-table", LightTable);
