// @ts-check
// A length with arithmetic or another unit says at once what it comes to.
const WAIT = 180; // ms without a key, after which the server is asked
const WIDTH = 200; // px that the bubble may take
const ABOVE = 30; // px

let asking = 0;
document.addEventListener("input", (event) => {
  const field = event.target;
  if (!(field instanceof HTMLInputElement) || !field.matches("[data-length]")) return;
  clearTimeout(asking);
  const isPlain = /^\s*[\d.,]*\s*(mm)?\s*$/.test(field.value);
  if (isPlain) {
    echo(field, "");
    return;
  }
  asking = setTimeout(async () => {
    const answer = await fetch(`?handler=Understand&text=${encodeURIComponent(field.value)}`);
    if (answer.ok) echo(field, await answer.json());
  }, WAIT);
});
document.addEventListener("change", (event) => {
  if (event.target instanceof HTMLInputElement && event.target.matches("[data-length]")) echo(event.target, "");
});

/**
 * @param {HTMLInputElement} field
 * @param {string} words
 */
function echo(field, words) {
  let bubble = document.getElementById("echo");
  if (!bubble) {
    bubble = document.createElement("output");
    bubble.id = "echo";
    document.body.append(bubble);
  }
  bubble.textContent = words;
  bubble.hidden = !words;
  const r = field.getBoundingClientRect();
  bubble.style.left = `${Math.min(r.left, innerWidth - WIDTH)}px`;
  bubble.style.top = `${r.top - ABOVE}px`;
}
