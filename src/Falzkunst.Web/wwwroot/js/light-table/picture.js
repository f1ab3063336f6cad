// @ts-check
// The painted picture: made by a worker, wider than the table by an overscan, moved about until the next one is there.
const OVERSCAN = 0.2; // of width and height, painted beyond each edge
const QUICK = 8; // ms; pictures painted within this are painted anew while moving
const STILL = 110; // ms without movement, after which a slow picture is painted anew

/** @typedef {{ layout: string, selected: Picked | null, highlight: string | null, progress: Progress | null, show: Shown }} PictureState */

export class Picture {
  #table;
  #canvas;
  #view;
  #state;
  /** @type {ImageBitmapRenderingContext} */
  #context;
  #worker;
  /** @type {(ViewState & { ox: number, oy: number }) | null} view of the picture on screen */
  #painted = null;
  /** @type {ViewState | null} view of the picture that is being painted */
  #painting = null;
  #isStale = false;
  #took = 0;
  #idle = 0;
  /** @type {Picked | null | undefined} what the painter knows to be picked */
  #sent = undefined;

  /**
   * @param {HTMLElement} table its size is the picture's
   * @param {HTMLCanvasElement} canvas
   * @param {import("./view.js").View} view
   * @param {() => PictureState} state what is to be seen now
   */
  constructor(table, canvas, view, state) {
    this.#table = table;
    this.#canvas = canvas;
    this.#view = view;
    this.#state = state;
    this.#context = /** @type {ImageBitmapRenderingContext} */ (canvas.getContext("bitmaprenderer"));
    this.#worker = new Worker(new URL("./painter.js", import.meta.url), { type: "module" });
    this.#worker.onmessage = ({ data }) => {
      if (!("arrived" in data)) return this.#take(data);
      this.outdate();
      this.paint();
    };
  }

  /** @param {Scene} sent the scene as the server sent it */
  setScene(sent) {
    this.#worker.postMessage({ scene: sent, page: location.href });
  }

  /** A page of a PDF was drawn. @param {string} key @param {ImageBitmap} bitmap */
  putPage(key, bitmap) {
    this.#worker.postMessage({ drawn: { key, bitmap } }, [bitmap]);
  }

  /** What it shows is of the past. */
  outdate() {
    this.#isStale = true;
  }

  /**
   * The view or what it shows has changed: moves the picture at once, and paints a new one when that is due.
   * @param {boolean} isDue
   */
  follow(isDue) {
    this.#place();
    if (isDue || this.#took <= QUICK) this.paint();
    clearTimeout(this.#idle);
    this.#idle = setTimeout(() => this.paint(), STILL);
  }

  paint() {
    const v = this.#view;
    const last = this.#painting ?? this.#painted;
    if (!this.#isStale && last && last.scale === v.scale && last.x === v.x && last.y === v.y) return;
    this.#isStale = true;
    if (this.#painting) return;
    this.#isStale = false;
    this.#painting = v.copy();
    const { clientWidth: w, clientHeight: h } = this.#table;
    const [ox, oy] = [Math.round(w * OVERSCAN), Math.round(h * OVERSCAN)];
    const { selected, ...state } = this.#state();
    const isOther = selected !== this.#sent;
    this.#sent = selected;
    const [width, height] = [w + 2 * ox, h + 2 * oy];
    /** @type {PaintRequest} */
    const paint = {
      view: { scale: v.scale, x: v.x + ox, y: v.y + oy },
      width,
      height,
      pixelRatio: devicePixelRatio,
      ...state,
      selected: isOther ? selected : undefined,
      number: { shown: v.copy(), ox, oy, w: width, h: height },
    };
    this.#worker.postMessage({ paint });
  }

  /** @param {PainterAnswer} answer */
  #take({ picture, took, number }) {
    this.#painting = null;
    this.#took = took;
    this.#canvas.width = picture.width;
    this.#canvas.height = picture.height;
    this.#canvas.style.width = `${number.w}px`;
    this.#canvas.style.height = `${number.h}px`;
    this.#context.transferFromImageBitmap(picture);
    this.#painted = { ...number.shown, ox: number.ox, oy: number.oy };
    this.#place();
    this.#table.dataset.painted = String(Number(this.#table.dataset.painted ?? 0) + 1);
    if (this.#isStale || this.#took <= QUICK) this.paint();
  }

  // Where the painted picture belongs under the present view.
  #place() {
    const p = this.#painted;
    const v = this.#view;
    if (!p) return;
    const k = v.scale / p.scale;
    this.#canvas.style.transform = `translate(${v.x - (p.x + p.ox) * k}px, ${v.y - (p.y + p.oy) * k}px) scale(${k})`;
  }
}
