// Pictures for tests and for looking at, drawn by the browser.
/** What a drawing looks like as a picture, by the browser's own renderer. */
export async function painted(page, body, width, height, type = "png") {
  const other = await page.context().newPage();
  await other.setViewportSize({ width, height });
  await other.setContent(`<style>body{margin:0}svg{display:block}</style><svg width="${width}" height="${height}">${body}</svg>`);
  const buffer = await other.screenshot({ type, ...(type === "jpeg" && { quality: 70 }) });
  await other.close();
  return buffer;
}

/** A lantern drawn by pen on paper, in light that falls from the left. */
export const doodle = `<defs><linearGradient id="l"><stop stop-color="#f6f2ea"/><stop offset="1" stop-color="#b5b0a8"/></linearGradient></defs>
  <rect width="900" height="600" fill="url(#l)"/><g fill="none" stroke="#2c2b30" stroke-width="9" stroke-linecap="round" stroke-linejoin="round">
  <path d="M300 90V160M240 160H360L385 220H215ZM215 220C180 320 195 430 265 490H335C405 430 420 320 385 220"/><circle cx="300" cy="350" r="50"/></g>`;
