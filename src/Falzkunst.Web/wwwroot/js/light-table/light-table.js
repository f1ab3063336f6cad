// <light-table src data-modes data-follows data-empty>: pieces true to scale, zoomed by wheel, moved by space or middle button.
import { View } from "./view.js";
import { boxOf } from "./boxes.js";
import { draw } from "./overlay.js";
import { drawRulers } from "./rulers.js";

const OVERSCAN = 0.2;          // of width and height, painted beyond each edge
const QUICK = 8;               // ms; pictures painted within this are painted anew while moving
const SETTLED = 110;           // ms without movement, after which a slow picture is painted anew
const EDGES = { left: 44, right: 44, top: 66, bottom: 46 };
const MODE_NAMES = { spread: "Spread out", stacked: "Stacked" };
const CLICK = 4;               // pixels a click may wander

class LightTable extends HTMLElement {
  #view = new View();
  #scene = null;
  #mode = null;
  #progress = null;
  #painted = null;             // view of the picture on screen
  #painting = false;
  #stale = false;
  #number = 0;
  #took = 0;
  #frame = 0;
  #idle = 0;
  #fitted = false;
  #hits = new Map();

  connectedCallback() {
    this.innerHTML = `<canvas class="picture" aria-hidden="true"></canvas><canvas class="ruler is-top" aria-hidden="true"></canvas><canvas class="ruler is-left" aria-hidden="true"></canvas><svg class="overlay" aria-hidden="true"></svg>
      <div class="surface" tabindex="0" role="application" aria-label="Light table"></div><div class="tools" role="group" aria-label="View"></div>`;
    this.canvas = this.querySelector(".picture");
    [this.top, this.left] = this.querySelectorAll(".ruler");
    this.overlay = this.querySelector("svg");
    this.surface = this.querySelector(".surface");
    this.picture = this.canvas.getContext("bitmaprenderer");
    this.worker = new Worker(new URL("./painter.js", import.meta.url), { type: "module" });
    this.worker.onmessage = ({ data }) => this.#take(data);
    this.#tools();
    this.#pointer();
    new ResizeObserver(() => this.#resized()).observe(this);
    this.reload();
  }

  get modes() { return (this.dataset.modes ?? "").split(" ").filter(Boolean); }
  get #layout() { return this.#scene.layouts.find(l => l.name === this.#mode) ?? this.#scene.layouts[0]; }

  /** Fetches the scene again; the view stays unless there was nothing before. */
  async reload(refit = false) {
    const url = new URL(this.getAttribute("src"), location.href);
    if (document.body.dataset.selected) url.searchParams.set("at", document.body.dataset.selected);
    const asked = ++this.#number;
    const answer = await fetch(url);
    if (!answer.ok || asked !== this.#number) return;
    const hadNothing = !this.#scene || this.#isEmpty;
    this.#scene = await answer.json();
    this.#mode ??= this.modes[0] ?? this.#scene.layouts[0].name;
    this.#hits.clear();
    this.worker.postMessage({ scene: this.#scene });
    this.#sayEmpty();
    if (hadNothing || refit || !this.#fitted) this.fit();
    else this.#changed(true);
    this.dataset.ready = String(this.#scene.head);
    if (this.dataset.ready !== document.body.dataset.head) this.dispatchEvent(new CustomEvent("scene-differs", { bubbles: true }));
  }

  get #isEmpty() { return this.#scene.layouts.every(l => l.items.length + l.loose.length + l.frames.length === 0); }

  select() {
    if (this.dataset.follows) this.reload(true);
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

  nextMode() {
    const modes = this.modes;
    if (modes.length < 2) return;
    this.#show(modes[(modes.indexOf(this.#mode) + 1) % modes.length]);
  }

  /** Lines before the progress stand out, those after it are faint; null shows all alike. */
  showProgress(progress) {
    if (JSON.stringify(progress) === JSON.stringify(this.#progress)) return;
    this.#progress = progress;
    if (this.#scene) this.#changed(true);
  }

  #show(mode) {
    this.#mode = mode;
    for (const b of this.querySelectorAll("[data-mode]")) b.setAttribute("aria-pressed", String(b.dataset.mode === mode));
    this.fit();
  }

  #tools() {
    const tools = this.querySelector(".tools");
    for (const [i, mode] of this.modes.entries()) {
      const b = document.createElement("button");
      Object.assign(b, { type: "button", textContent: MODE_NAMES[mode] ?? mode, onclick: () => this.#show(mode) });
      b.dataset.mode = mode;
      b.setAttribute("aria-pressed", String(i === 0));
      tools.append(b);
    }
    const fit = document.createElement("button");
    Object.assign(fit, { type: "button", textContent: "Fit", onclick: () => this.fit() });
    tools.append(fit);
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
    let drag = null, space = false, fingers = new Map();
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
      this.classList.add("is-panning");
      this.#view.pan((now.x - before.x) / fingers.size, (now.y - before.y) / fingers.size);
      this.#changed();
    });
    const end = e => {
      if (drag && drag.moved < CLICK && e.type === "pointerup" && e.button === 0 && !space) this.#pick(e);
      fingers.delete(e.pointerId);
      if (fingers.size === 0) drag = null;
      this.classList.remove("is-panning");
    };
    s.addEventListener("pointerup", end);
    s.addEventListener("pointercancel", end);
    s.addEventListener("keydown", e => {
      const by = { ArrowLeft: [60, 0], ArrowRight: [-60, 0], ArrowUp: [0, 60], ArrowDown: [0, -60] }[e.key];
      if (by) this.#view.pan(...by);
      else if (e.key === " ") space = true;
      else return;
      e.preventDefault();
      this.#changed();
    });
    s.addEventListener("keyup", e => { if (e.key === " ") space = false; });
    s.addEventListener("blur", () => { space = false; });
  }

  // The topmost piece under the pointer, or the topmost whose line runs close by.
  #pick(e) {
    if (!this.#scene) return;
    const r = this.surface.getBoundingClientRect(), at = this.#view.toTable(e.clientX - r.left, e.clientY - r.top), near = 5 / this.#view.scale;
    for (const item of [...this.#layout.items].reverse()) {
      const [minX, minY, maxX, maxY] = boxOf(item);
      if (at.x < minX - near || at.x > maxX + near || at.y < minY - near || at.y > maxY + near) continue;
      if (!this.#isHit(item, at, near)) continue;
      this.dispatchEvent(new CustomEvent("piece-picked", { bubbles: true, detail: { piece: item.piece } }));
      return;
    }
  }

  #isHit(item, at, near) {
    this.scratch ??= document.createElement("canvas").getContext("2d");
    if (!this.#hits.has(item.shape)) {
      const path = new Path2D();
      item.lines.forEach((line, i) => { if (line.role !== "i") path.addPath(new Path2D(this.#scene.shapes[item.shape][i])); });
      this.#hits.set(item.shape, path);
    }
    const p = new DOMMatrix(item.map).inverse().transformPoint(new DOMPoint(at.x, at.y));
    this.scratch.lineWidth = 2 * near;
    return this.scratch.isPointInPath(this.#hits.get(item.shape), p.x, p.y, "evenodd") || this.scratch.isPointInStroke(this.#hits.get(item.shape), p.x, p.y);
  }

  #resized() {
    if (!this.#fitted && this.#scene) this.fit();
    else if (this.#scene) this.#changed(true);
  }

  // The view or what it shows has changed: move the picture at once, paint a new one when that is due.
  #changed(repaint = false) {
    if (repaint) this.#stale = true;
    this.#frame ||= requestAnimationFrame(() => {
      this.#frame = 0;
      this.#place();
      drawRulers(this.top, this.left, { view: this.#view, width: this.clientWidth, height: this.clientHeight, inches: this.#scene.inches });
      draw(this.overlay, {
        view: this.#view, width: this.clientWidth, height: this.clientHeight, layout: this.#layout,
        selected: this.dataset.follows ? null : document.body.dataset.selected ?? null, inches: this.#scene.inches, head: this.#progress?.head,
      });
      if (repaint || this.#took <= QUICK) this.#paint();
      clearTimeout(this.#idle);
      this.#idle = setTimeout(() => this.#paint(), SETTLED);
    });
  }

  #paint() {
    if (this.#painting) {
      this.#stale = true;
      return;
    }
    const v = this.#view, p = this.#painted;
    if (!this.#stale && p && p.scale === v.scale && p.x === v.x && p.y === v.y) return;
    this.#stale = false;
    this.#painting = true;
    const [w, h] = [this.clientWidth, this.clientHeight], [ox, oy] = [Math.round(w * OVERSCAN), Math.round(h * OVERSCAN)];
    this.worker.postMessage({
      paint: {
        view: { scale: v.scale, x: v.x + ox, y: v.y + oy }, width: w + 2 * ox, height: h + 2 * oy, pixelRatio: devicePixelRatio, layout: this.#mode,
        selected: this.dataset.follows ? null : document.body.dataset.selected ?? null, progress: this.#progress,
        number: { shown: v.copy(), ox, oy, w: w + 2 * ox, h: h + 2 * oy },
      },
    });
  }

  #take({ picture, took, number }) {
    this.#painting = false;
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
