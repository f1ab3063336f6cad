// @ts-check
// Marks that somebody touches on enlarged pictures: each touch is a place in millimetres, kept as two fields of the form.
import { ARROWS } from "./dom.js";

document.addEventListener("click", (event) => {
  const touched = event.target instanceof Element ? event.target.closest(".mark-touch") : null;
  if (!(touched instanceof HTMLButtonElement)) return;
  const box = touched.getBoundingClientRect();
  // A key touches the middle.
  const byKey = event.detail === 0;
  const u = byKey ? 0.5 : (event.clientX - box.left) / box.width;
  const v = byKey ? 0.5 : (event.clientY - box.top) / box.height;
  put(touched, u, v);
});

document.addEventListener("keydown", (event) => {
  const touched = event.target;
  const step = ARROWS[event.key];
  if (!step || !(touched instanceof HTMLButtonElement) || !touched.matches(".mark-touch")) return;
  event.preventDefault();
  put(touched, Number(touched.dataset.u ?? 0.5) + step[0] / 150, Number(touched.dataset.v ?? 0.5) + step[1] / 150);
});

/**
 * @param {HTMLButtonElement} touched
 * @param {number} u
 * @param {number} v
 */
function put(touched, u, v) {
  touched.dataset.u = String(u);
  touched.dataset.v = String(v);
  const mm = Number(touched.dataset.mm);
  field(touched, "x", Number(touched.dataset.atX) + u * mm);
  field(touched, "y", Number(touched.dataset.atY) + v * mm);
  let cross = touched.querySelector(".cross");
  if (!cross) {
    cross = document.createElement("span");
    cross.className = "cross";
    touched.append(cross);
  }
  /** @type {HTMLElement} */ (cross).style.left = `${u * 100}%`;
  /** @type {HTMLElement} */ (cross).style.top = `${v * 100}%`;
  const form = touched.closest("form");
  const act = form?.querySelector("button.act");
  if (form && act instanceof HTMLButtonElement)
    act.disabled = form.querySelectorAll('input[name="x"]').length < form.querySelectorAll(".mark-touch").length;
}

/**
 * @param {HTMLButtonElement} touched
 * @param {string} name
 * @param {number} value
 */
function field(touched, name, value) {
  let input = touched.querySelector(`input[name="${name}"]`);
  if (!(input instanceof HTMLInputElement)) {
    input = document.createElement("input");
    /** @type {HTMLInputElement} */ (input).type = "hidden";
    /** @type {HTMLInputElement} */ (input).name = name;
    touched.append(input);
  }
  /** @type {HTMLInputElement} */ (input).value = value.toFixed(3);
}
