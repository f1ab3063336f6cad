// @ts-check
// Pointers over the table: a wheel or two fingers zoom, a drag is a gesture of a tool or moves the view, a touch picks.
const CLICK = 4; // pixels a touch may wander
const LINE = 16; // pixels of a wheel's line
const PAN_KEYS = { ArrowLeft: [60, 0], ArrowRight: [-60, 0], ArrowUp: [0, 60], ArrowDown: [0, -60] };

/**
 * @typedef {object} PointerUse
 * @property {(e: PointerEvent) => Gesture | null} begin the gesture that begins there; null where the view is moved
 * @property {(e: MouseEvent) => TablePoint} at
 * @property {(e: PointerEvent) => void} touch
 * @property {() => void} cancel a gesture was called off, or did not move
 * @property {() => void} over a gesture has ended
 * @property {() => boolean} takesArrows the arrow keys are for what is picked
 * @property {() => void} changed the view has changed
 */

/**
 * @param {HTMLElement} table gets the class is-panning while its view is moved
 * @param {HTMLElement} surface
 * @param {import("./view.js").View} view
 * @param {PointerUse} use
 */
export function listen(table, surface, view, use) {
  /** @type {Map<number, Point>} */
  const fingers = new Map();
  /** @type {{ moved: number } | null} */
  let drag = null;
  let isSpaceHeld = false;
  /** @type {Gesture | null} */
  let gesture = null;

  surface.addEventListener(
    "wheel",
    (e) => {
      e.preventDefault();
      const r = surface.getBoundingClientRect();
      const lines = e.deltaMode === 1 ? LINE : 1;
      view.zoomAt(e.clientX - r.left, e.clientY - r.top, Math.exp(-e.deltaY * lines * (e.ctrlKey ? 0.01 : 0.0016)));
      use.changed();
    },
    { passive: false },
  );
  surface.addEventListener("pointerdown", (e) => {
    surface.setPointerCapture(e.pointerId);
    fingers.set(e.pointerId, { x: e.clientX, y: e.clientY });
    drag = { moved: 0 };
    gesture = fingers.size === 1 && !isSpaceHeld ? use.begin(e) : null;
    if (e.button === 1) e.preventDefault();
  });
  surface.addEventListener("pointermove", (e) => {
    const before = fingers.get(e.pointerId);
    if (!drag || !before) return;
    const now = { x: e.clientX, y: e.clientY };
    const other = fingers.size === 2 ? [...fingers].find(([id]) => id !== e.pointerId)?.[1] : null;
    if (other) {
      const r = surface.getBoundingClientRect();
      const span = (/** @type {Point} */ p) => Math.hypot(p.x - other.x, p.y - other.y);
      view.zoomAt((now.x + other.x) / 2 - r.left, (now.y + other.y) / 2 - r.top, span(now) / Math.max(1, span(before)));
    }
    fingers.set(e.pointerId, now);
    drag.moved += Math.hypot(now.x - before.x, now.y - before.y);
    if (drag.moved < CLICK) return;
    if (gesture) {
      gesture.move(use.at(e), e);
      return;
    }
    table.classList.add("is-panning");
    view.pan((now.x - before.x) / fingers.size, (now.y - before.y) / fingers.size);
    use.changed();
  });
  const end = (/** @type {PointerEvent} */ e) => {
    const isLetGo = e.type === "pointerup";
    if (drag && drag.moved < CLICK && isLetGo && e.button === 0 && !isSpaceHeld) use.touch(e);
    if (gesture) {
      // What was not moved is only touched; what was called off by another finger stays as it was.
      if (drag && drag.moved >= CLICK && isLetGo) gesture.end();
      else use.cancel();
      use.over();
      gesture = null;
    }
    fingers.delete(e.pointerId);
    if (fingers.size === 0) drag = null;
    table.classList.remove("is-panning");
  };
  surface.addEventListener("pointerup", end);
  surface.addEventListener("pointercancel", end);
  surface.addEventListener("keydown", (e) => {
    const by = PAN_KEYS[/** @type {keyof typeof PAN_KEYS} */ (e.key)];
    if (by && use.takesArrows()) return;
    if (by) view.pan(by[0], by[1]);
    else if (e.key === " ") isSpaceHeld = true;
    else return;
    e.preventDefault();
    use.changed();
  });
  surface.addEventListener("keyup", (e) => {
    if (e.key === " ") isSpaceHeld = false;
  });
  surface.addEventListener("blur", () => {
    isSpaceHeld = false;
  });
}
