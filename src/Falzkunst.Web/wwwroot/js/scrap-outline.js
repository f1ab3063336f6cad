// @ts-check
// The outline of a rest that was found on a picture: its corners are moved by hand before it is kept. Lengths are mm.
import { ARROWS } from "./dom.js";

const SVG = "http://www.w3.org/2000/svg";
const NUDGE = 0.25; // mm by a key
const LEAST = 3; // corners

/** @param {SVGSVGElement} svg */
const input = (svg) => /** @type {HTMLInputElement | null | undefined} */ (svg.closest("form")?.querySelector('input[name="corners"]'));

/** @param {SVGSVGElement} svg @returns {[number, number][]} */
const corners = (svg) =>
  (input(svg)?.value ?? "")
    .split(" ")
    .filter(Boolean)
    .map((c) => /** @type {[number, number]} */ (c.split(",").map((n) => parseFloat(n))));

/** @param {SVGSVGElement} svg @param {[number, number][]} all */
function keep(svg, all) {
  const field = input(svg);
  if (field) field.value = all.map(([x, y]) => `${x.toFixed(2)}mm,${y.toFixed(2)}mm`).join(" ");
  draw(svg);
}

/** @param {SVGSVGElement} svg */
function draw(svg) {
  const all = corners(svg);
  svg.querySelector("polygon")?.setAttribute("points", all.map((c) => c.join(",")).join(" "));
  const handles = [...svg.querySelectorAll("circle")];
  for (const extra of handles.slice(all.length)) extra.remove();
  all.forEach(([x, y], i) => {
    let handle = handles[i];
    if (!handle) {
      handle = document.createElementNS(SVG, "circle");
      handle.setAttribute("tabindex", "0");
      handle.setAttribute("role", "button");
      svg.append(handle);
    }
    handle.setAttribute("aria-label", `Corner ${i + 1}`);
    handle.setAttribute("cx", String(x));
    handle.setAttribute("cy", String(y));
    handle.setAttribute("r", String(svg.viewBox.baseVal.width / 90));
    handle.dataset.corner = String(i);
  });
}

/** @param {Event} event @returns {[SVGSVGElement, number] | null} */
function touched(event) {
  const handle = event.target;
  if (!(handle instanceof SVGCircleElement)) return null;
  const svg = handle.closest("svg[data-scrap]");
  return svg instanceof SVGSVGElement ? [svg, Number(handle.dataset.corner)] : null;
}

/** @param {SVGSVGElement} svg @param {number} i @param {number} x @param {number} y */
function move(svg, i, x, y) {
  const all = corners(svg);
  const box = svg.viewBox.baseVal;
  all[i] = [Math.min(box.width, Math.max(0, x)), Math.min(box.height, Math.max(0, y))];
  keep(svg, all);
}

document.addEventListener("pointerdown", (event) => {
  const at = touched(event);
  if (!at) return;
  const [svg, i] = at;
  /** @param {PointerEvent} e */
  const follow = (e) => {
    const box = svg.getBoundingClientRect();
    move(
      svg,
      i,
      ((e.clientX - box.left) / box.width) * svg.viewBox.baseVal.width,
      ((e.clientY - box.top) / box.height) * svg.viewBox.baseVal.height,
    );
  };
  document.addEventListener("pointermove", follow);
  document.addEventListener("pointerup", () => document.removeEventListener("pointermove", follow), { once: true });
});

document.addEventListener("keydown", (event) => {
  const at = touched(event);
  const by = ARROWS[event.key];
  if (!at) return;
  const [x, y] = corners(at[0])[at[1]] ?? [0, 0];
  if (by) move(at[0], at[1], x + by[0] * NUDGE, y + by[1] * NUDGE);
  else if (event.key === "Delete") remove(...at);
  else return;
  event.preventDefault();
});

document.addEventListener("dblclick", (event) => {
  const at = touched(event);
  if (at) remove(...at);
});

/** @param {SVGSVGElement} svg @param {number} i */
function remove(svg, i) {
  const all = corners(svg);
  if (all.length > LEAST) keep(svg, all.toSpliced(i, 1));
}

const begin = () => {
  for (const svg of document.querySelectorAll("svg[data-scrap]")) if (svg instanceof SVGSVGElement) draw(svg);
};
document.addEventListener("htmx:after:swap", begin);
document.addEventListener("DOMContentLoaded", begin);
