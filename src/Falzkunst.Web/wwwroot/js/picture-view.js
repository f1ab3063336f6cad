// @ts-check
// <picture-view>: a picture over the table, zoomed by wheel, moved by space or middle button, and what the hand does to it: touches,
// crops, two touches to straighten, the four corners of a page, a brush. The trace that is chosen in the tray lies over it.
import { post } from "./actions.js";
import { all, about } from "./dom.js";
import { element } from "./light-table/svg.js";

const ROOM = 30; // px left free round the picture
const DRAG = 6; // px from which a touch is a drag
const [CORNER, STEP] = [12, 1.2]; // px about a corner that take hold of it; zoom of one turn of the wheel

/** @type {Record<string, string>} */
const HINTS = {
  crop: "Draw a rectangle round what is to stay.",
  ellipse: "Draw an oval round what is to stay.",
  straighten: "Touch two places that should lie level, or upright.",
  corners: "Drag the corners to those of the page, then make it flat.",
  touch: "Touch what is to go.",
  "touch-all": "Touch a colour: all of it goes, wherever it is.",
  colour: "Touch the colour that you want.",
  give: "Paint over what is to come back.",
  take: "Paint over what is to go.",
};

class PictureView extends HTMLElement {
  #view = { scale: 0, x: 0, y: 0, key: "" };
  /** @type {string | null} */
  tool = null;
  /** @type {Point[]} shares of the picture: what is being drawn, or the corners of a page */
  #points = [];
  /** @type {{ from: Point, way: "move" | "draw" | "corner", corner: number, last: Point } | null} */
  #hand = null;
  #isSpace = false;

  connectedCallback() {
    const surface = this.#part(".picture-surface");
    surface.addEventListener("wheel", (/** @type {WheelEvent} */ e) => this.#zoom(e), { passive: false });
    surface.addEventListener("pointerdown", (/** @type {PointerEvent} */ e) => this.#down(e));
    surface.addEventListener("pointermove", (/** @type {PointerEvent} */ e) => this.#move(e));
    surface.addEventListener("pointerup", (/** @type {PointerEvent} */ e) => this.#up(e));
    surface.addEventListener("keydown", (/** @type {KeyboardEvent} */ e) => (this.#isSpace ||= e.key === " "));
    surface.addEventListener("keyup", (/** @type {KeyboardEvent} */ e) => {
      if (e.key === " ") this.#isSpace = false;
    });
    this.addEventListener("click", (e) => {
      if (about(e, "[data-picture-fit]")) this.fit();
      const blink = about(e, "[data-blink]");
      if (blink) this.classList.toggle("is-blinking", blink.getAttribute("aria-pressed") !== "true");
      blink?.setAttribute("aria-pressed", String(this.classList.contains("is-blinking")));
    });
    this.addEventListener("input", () => this.#compare());
    new ResizeObserver(() => this.fit()).observe(this);
    this.restore();
  }

  /** The page has come anew: what lies where is set again. */
  restore() {
    const { picture, across, down } = this.dataset;
    if (this.#view.key !== `${picture} ${across} ${down}`) this.fit();
    this.#points = this.tool === "corners" && this.#points.length === 4 ? this.#points : [];
    const open = document.querySelector("#tray [role=tabpanel]:not([hidden]) [data-first-tool]");
    if (!document.querySelector(`#tray [role=tabpanel]:not([hidden]) [data-picture-tool="${this.tool}"]`)) this.tool = null;
    this.use(this.tool ?? (open instanceof HTMLElement ? (open.dataset.pictureTool ?? null) : null));
    this.#place();
  }

  /** @param {string | null} tool what the next stroke does */
  use(tool) {
    this.tool = tool;
    for (const b of all("[data-picture-tool]")) b.setAttribute("aria-pressed", String(b.dataset.pictureTool === tool));
    if (tool === "corners" && this.#points.length !== 4)
      this.#points = [[0.06, 0.06], [0.94, 0.06], [0.94, 0.94], [0.06, 0.94]].map(([x, y]) => ({ x, y })); // prettier-ignore
    else if (tool !== "corners") this.#points = [];
    for (const b of all("[data-picture-apply]")) b.hidden = tool !== "corners";
    this.#part(".picture-hint").textContent = tool ? HINTS[tool] : "";
    this.dataset.tool = tool ?? "";
    this.#draw();
  }

  fit() {
    const { clientWidth: w, clientHeight: h } = this;
    const [across, down] = this.#size;
    if (!w || !across) return;
    const scale = Math.min((w - 2 * ROOM) / across, (h - 2 * ROOM) / down);
    const { picture } = this.dataset;
    this.#view = { scale, x: (w - across * scale) / 2, y: (h - down * scale) / 2, key: `${picture} ${across} ${down}` };
    this.#place();
  }

  /** Posts the corners of the page. */
  apply() {
    if (this.#points.length !== 4) return;
    const [upperLeft, upperRight, lowerRight, lowerLeft] = this.#points;
    this.step({ step: "unfold", upperLeft, upperRight, lowerRight, lowerLeft });
    this.use(null);
  }

  /** @param {Record<string, unknown>} step */
  step(step) {
    this.classList.add("is-working");
    return Promise.resolve(post("PictureStep", { picture: this.dataset.picture, step: JSON.stringify(step) })).finally(() =>
      this.classList.remove("is-working"),
    );
  }

  /**
   * Shows a trace over the picture; null takes it away.
   * @param {HTMLElement | null} told the candidate that is chosen
   */
  trace(told) {
    const svg = /** @type {SVGSVGElement} */ (this.#part(".picture-traced"));
    svg.replaceChildren();
    const shown = Boolean(told?.dataset.traced);
    for (const part of ["label.compare", "[data-blink]"]) this.#part(part).hidden = !shown;
    if (told?.dataset.traced) {
      svg.setAttribute("viewBox", `0 0 ${told.dataset.tracedAcross} ${told.dataset.tracedDown}`);
      paint(svg, told.dataset.traced);
    }
    this.#compare();
  }

  get #size() {
    return [Number(this.dataset.across), Number(this.dataset.down)];
  }

  #compare() {
    const range = /** @type {HTMLInputElement} */ (this.#part("[data-compare]"));
    const share = this.#part("label.compare").hidden ? 0 : Number(range.value) / 100;
    this.#part("img").style.opacity = String(1 - share * 0.85);
    this.#part(".picture-traced").style.opacity = String(Math.min(1, share * 1.6));
  }

  #place() {
    const { scale, x, y } = this.#view;
    const [across, down] = this.#size;
    const stage = this.#part(".picture-stage");
    stage.style.transform = `translate(${x}px, ${y}px)`;
    stage.style.width = `${across * scale}px`;
    stage.style.height = `${down * scale}px`;
    this.#draw();
  }

  /** @param {WheelEvent} e */
  #zoom(e) {
    e.preventDefault();
    const at = this.#at(e);
    const times = e.deltaY < 0 ? STEP : 1 / STEP;
    const v = this.#view;
    this.#view = { ...v, scale: v.scale * times, x: at.x - (at.x - v.x) * times, y: at.y - (at.y - v.y) * times };
    this.#place();
  }

  /** @param {PointerEvent} e */
  #down(e) {
    const at = this.#at(e);
    const corner = this.tool === "corners" ? this.#points.findIndex((p) => far(this.#onScreen(p), at) < CORNER) : -1;
    const way = e.button === 1 || this.#isSpace || (!this.tool && e.button === 0) ? "move" : corner >= 0 ? "corner" : "draw";
    if (e.button === 2 || (way === "draw" && this.tool === "corners")) return;
    this.#part(".picture-surface").setPointerCapture(e.pointerId);
    this.#hand = { from: at, way, corner, last: at };
    if (way === "draw" && !(this.tool === "straighten" && this.#points.length === 1)) this.#points = [this.#share(at)];
    this.#draw();
  }

  /** @param {PointerEvent} e */
  #move(e) {
    const hand = this.#hand;
    if (!hand) return;
    const at = this.#at(e);
    if (hand.way === "move") {
      this.#view.x += at.x - hand.last.x;
      this.#view.y += at.y - hand.last.y;
      this.#place();
    } else if (hand.way === "corner") this.#points[hand.corner] = this.#share(at);
    else if (this.tool === "give" || this.tool === "take") this.#points.push(this.#share(at));
    else if (far(hand.from, at) > DRAG) this.#points = [this.#share(hand.from), this.#share(at)];
    hand.last = at;
    this.#draw();
  }

  /** @param {PointerEvent} e */
  #up(e) {
    const hand = this.#hand;
    this.#hand = null;
    if (hand?.way !== "draw") return;
    const at = this.#share(this.#at(e));
    const [a, b] = this.#points;
    switch (this.tool) {
      case "touch":
      case "touch-all":
        if (within(at)) this.step({ step: "background", x: at.x, y: at.y, tolerance: tolerance(), everywhere: this.tool === "touch-all" });
        this.#points = [];
        break;
      case "colour":
        if (within(at))
          htmx.ajax("GET", `?handler=Colour&picture=${this.dataset.picture}&x=${at.x}&y=${at.y}`, {
            source: "#doer",
            target: "#picked-colour",
            swap: "innerHTML",
          });
        this.#points = [];
        break;
      case "crop":
      case "ellipse":
        if (b) this.step({ step: "crop", ...box(a, b), form: this.tool === "crop" ? "rectangle" : "ellipse" });
        this.use(b ? null : this.tool);
        break;
      case "straighten":
        if (b) this.#straighten(a, b);
        else if (far(this.#onScreen(a), this.#at(e)) > DRAG) this.#straighten(a, at);
        break;
      case "give":
      case "take": {
        const radius = Number(/** @type {HTMLInputElement} */ (document.querySelector("[data-brush]")).value) / 100;
        this.step({ step: "brush", points: thinned(this.#points), radius, gives: this.tool === "give" });
        this.#points = [];
      }
    }
    this.#draw();
  }

  /**
   * Turns so that the way between two places lies level or upright, whichever is nearer.
   * @param {Point} a
   * @param {Point} b
   */
  #straighten(a, b) {
    const [across, down] = this.#size;
    const angle = (Math.atan2((b.y - a.y) * down, (b.x - a.x) * across) * 180) / Math.PI;
    const off = angle - Math.round(angle / 90) * 90;
    this.step({ step: "straighten", degrees: Number((-off).toFixed(2)) });
    this.use(null);
  }

  #draw() {
    const svg = /** @type {SVGSVGElement} */ (this.#part(".picture-hand"));
    svg.replaceChildren();
    const points = this.#points.map((p) => this.#onScreen(p));
    const [a, b] = points;
    if (!a) return;
    if (this.tool === "corners") {
      element(svg, "polygon", { points: points.map((p) => `${p.x},${p.y}`).join(" "), class: "page" });
      for (const p of points) element(svg, "circle", { cx: p.x, cy: p.y, r: 7, class: "handle" });
    } else if (this.tool === "give" || this.tool === "take") {
      const brush = /** @type {HTMLInputElement | null} */ (document.querySelector("[data-brush]"));
      const width = (2 * Number(brush?.value ?? 2) * this.#size[0] * this.#view.scale) / 100;
      const d = `M${points.map((p) => `${p.x} ${p.y}`).join("L")}${b ? "" : "h0.01"}`;
      element(svg, "path", { d, class: `brush is-${this.tool}`, "stroke-width": width });
    } else if (!b) element(svg, "circle", { cx: a.x, cy: a.y, r: 5, class: "handle" });
    else if (this.tool === "straighten") element(svg, "path", { d: `M${a.x} ${a.y}L${b.x} ${b.y}`, class: "page" });
    else if (this.tool === "ellipse") {
      const [rx, ry] = [Math.abs(b.x - a.x) / 2, Math.abs(b.y - a.y) / 2];
      element(svg, "ellipse", { cx: (a.x + b.x) / 2, cy: (a.y + b.y) / 2, rx, ry, class: "page" });
    } else if (this.tool === "crop") {
      const { x, y, width, height } = {
        x: Math.min(a.x, b.x),
        y: Math.min(a.y, b.y),
        width: Math.abs(b.x - a.x),
        height: Math.abs(b.y - a.y),
      };
      element(svg, "rect", { x, y, width, height, class: "page" });
    }
  }

  /** @param {Point} screen */
  #share({ x, y }) {
    const [across, down] = this.#size;
    const v = this.#view;
    return { x: Number(((x - v.x) / v.scale / across).toFixed(5)), y: Number(((y - v.y) / v.scale / down).toFixed(5)) };
  }

  /** @param {Point} share */
  #onScreen({ x, y }) {
    const [across, down] = this.#size;
    const v = this.#view;
    return { x: v.x + x * across * v.scale, y: v.y + y * down * v.scale };
  }

  /** @param {MouseEvent} e */
  #at(e) {
    const r = this.getBoundingClientRect();
    return { x: e.clientX - r.left, y: e.clientY - r.top };
  }

  /** @returns {any} */
  #part(/** @type {string} */ which) {
    return this.querySelector(which);
  }
}

/**
 * Draws what was traced.
 * @param {SVGSVGElement} svg
 * @param {string} told
 */
function paint(svg, told) {
  /** @type {{ d: string, colour: string, stroke: boolean }[]} */
  const shown = JSON.parse(told);
  for (const { d, colour, stroke } of shown)
    element(svg, "path", stroke ? { d, class: "middle" } : { d, ...(colour && { fill: colour }), "fill-rule": "evenodd", class: "area" });
}

/**
 * @param {Point} a
 * @param {Point} b
 */
const far = (a, b) => Math.hypot(a.x - b.x, a.y - b.y);
/** @param {Point} p */
const within = (p) => p.x >= 0 && p.y >= 0 && p.x <= 1 && p.y <= 1;
const tolerance = () => Number(/** @type {HTMLInputElement} */ (document.querySelector("[data-tolerance]")).value) / 100;

/**
 * The part between two corners that lies within the picture.
 * @param {Point} a
 * @param {Point} b
 */
function box(a, b) {
  const clamp = (/** @type {number} */ n) => Math.min(1, Math.max(0, n));
  const [x, y, right, bottom] = [Math.min(a.x, b.x), Math.min(a.y, b.y), Math.max(a.x, b.x), Math.max(a.y, b.y)].map(clamp);
  return { x, y, width: right - x, height: bottom - y };
}

const MOST_POINTS = 1500;

/**
 * A long stroke with every so many of its points left out.
 * @param {Point[]} points
 */
const thinned = (points) => points.filter((_, i) => i % Math.ceil(points.length / MOST_POINTS) === 0);

customElements.define("picture-view", PictureView);

/** @returns {PictureView | null} */
const shown = () => document.querySelector("picture-view");
const openTrace = () => document.querySelector("#tray [role=tabpanel]:not([hidden]) #trace-form");

/** What is traced is asked for once the tab is open, and shown while it is. */
function follow() {
  const view = shown();
  view?.restore();
  const form = openTrace();
  if (!(form instanceof HTMLElement) || !view) return void view?.trace(null);
  const chosen = form.querySelector("[data-traced]:has(input:checked)");
  if (form.dataset.traced !== form.dataset.key) {
    form.dataset.traced = form.dataset.key;
    htmx.trigger(form.querySelector(".is-trace-how"), "trace-now");
  }
  view.trace(chosen instanceof HTMLElement ? chosen : null);
  for (const card of all("#traced [data-traced]")) {
    const svg = card.querySelector("svg");
    if (svg && !svg.hasChildNodes()) paint(svg, card.dataset.traced ?? "[]");
  }
}

document.addEventListener("htmx:after:swap", follow);
document.addEventListener("click", (e) => {
  if (about(e, "[role=tab]")) follow();
  const view = shown();
  if (!view) return;
  const tool = about(e, "[data-picture-tool]")?.dataset.pictureTool;
  if (tool) view.use(view.tool === tool ? null : tool);
  const step = about(e, "[data-picture-step]")?.dataset.pictureStep;
  if (step) view.step(JSON.parse(step));
  if (about(e, "[data-picture-guess]")) view.step({ step: "background-guessed", tolerance: tolerance() });
  if (about(e, "[data-picture-apply]")) view.apply();
});
document.addEventListener("change", (e) => {
  if (about(e, "#traced")) follow();
});
document.addEventListener("input", (e) => {
  const range = about(e, "[data-tolerance]");
  const word = document.querySelector("[data-tolerance-word]");
  if (range instanceof HTMLInputElement && word) word.textContent = range.value;
});
document.addEventListener("DOMContentLoaded", follow);
