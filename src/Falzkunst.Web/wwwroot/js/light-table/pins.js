// @ts-check
// Findings and thin places as pins at their places, and what is known of the one that is looked at.
import { element } from "./svg.js";

// More pins than this at once say no more, and each costs time at every frame; nearer, all of them are seen.
const MOST_PINS = 150;
const ABOVE = 12; // px; a pin stands above its place
const REACH = 12; // px
const CARD_HEIGHT = 46; // px
const BESIDE = 22; // px from a pin to its card
const [TOOLBAR_WIDE, TOOLBAR_HIGH] = [310, 56]; // px at the table's upper right corner, where the toolbar lies over it

/** @typedef {import("./overlay.js").OverlayState} OverlayState */

/**
 * A point of the screen lies on the pin of a place there.
 * @param {Point} place
 * @param {Point} at
 */
export const isOnPin = (place, at) => Math.hypot(place.x - at.x, place.y - ABOVE - at.y) < REACH;

/**
 * @param {SVGSVGElement} svg
 * @param {OverlayState} state
 */
export function drawPins(svg, state) {
  const { layout, view, place } = state;
  const looked = layout.pins.find((p) => p.number === place);
  pins(svg, state, looked ? [...layout.pins.filter((p) => p !== looked), looked] : layout.pins);
  if (looked) card(svg, view.toScreen(looked.x, looked.y), state.width, looked);
}

/**
 * @param {SVGSVGElement} svg
 * @param {OverlayState} state
 * @param {ScenePin[]} all
 */
function pins(svg, { view, width, height }, all) {
  let drawn = 0;
  for (const pin of all) {
    const p = view.toScreen(pin.x, pin.y);
    if (p.x < 0 || p.y < 0 || p.x > width || p.y > height || ++drawn > MOST_PINS) continue;
    const fill = pin.severity === "major" ? "#B3361E" : "#855B00";
    element(svg, "circle", { cx: p.x, cy: p.y - ABOVE, r: 9, fill });
    element(svg, "path", { d: `M${p.x - 3} ${p.y - 5}L${p.x} ${p.y}L${p.x + 3} ${p.y - 5}Z`, fill });
    element(svg, "text", { x: p.x, y: p.y - 8, class: "pin-number" }, pin.number);
  }
}

/**
 * @param {SVGSVGElement} svg
 * @param {Point} at
 * @param {number} width of the table, px
 * @param {ScenePin} pin
 */
function card(svg, at, width, pin) {
  element(svg, "circle", { cx: at.x, cy: at.y - ABOVE, r: 12.5, fill: "none", stroke: "#2D6CDF", "stroke-width": 2 });
  const paper = element(svg, "rect", { height: CARD_HEIGHT, rx: 6, class: "place-card" });
  const words = [
    element(svg, "text", { class: `place-width is-${pin.severity}` }, pin.message),
    element(svg, "text", { class: "place-note" }, pin.note ?? ""),
  ];
  const wide = 24 + Math.max(...words.map((w) => w.getComputedTextLength()));
  const x = at.x + BESIDE + wide > width ? at.x - BESIDE - wide : at.x + BESIDE;
  const isUnderToolbar = x + wide > width - TOOLBAR_WIDE && at.y - 36 < TOOLBAR_HIGH;
  const y = isUnderToolbar ? Math.max(TOOLBAR_HIGH, at.y + 8) : at.y - 36;
  paper.setAttribute("x", String(x));
  paper.setAttribute("y", String(y));
  paper.setAttribute("width", String(wide));
  words.forEach((w, i) => {
    w.setAttribute("x", String(x + 12));
    w.setAttribute("y", String(y + 19 + 17 * i));
  });
}
