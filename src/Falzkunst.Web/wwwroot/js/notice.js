// @ts-check
/**
 * A sentence above the tray, from the page itself.
 * @param {string} words
 */
export function say(words) {
  const notice = document.getElementById("notice");
  if (!notice) return;
  const box = document.createElement("div");
  const text = document.createElement("p");
  const close = document.createElement("button");
  box.className = "notice";
  box.setAttribute("role", "alert");
  text.textContent = words;
  Object.assign(close, { type: "button", className: "plain", textContent: "Close" });
  close.dataset.dismiss = "";
  box.append(text, close);
  notice.replaceChildren(box);
}
