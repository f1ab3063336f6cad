// @ts-check
// Pages of a PDF, drawn by pdf.js as any reader would draw them; what is seen on the table is what is printed.
import { keyOf } from "./paint-prints.js";

const LONGEST = 2400; // px of a drawn page's longer side: sharp until a page is some four times as high as the table

/** @type {Promise<any> | null} */
let library = null;

/** pdf.js, fetched when the first page is wanted. */
function reader() {
  library ??= import(new URL("../../lib/pdf.min.js", import.meta.url).href).then((pdf) => {
    pdf.GlobalWorkerOptions.workerSrc = new URL("../../lib/pdf.worker.min.js", import.meta.url).href;
    return pdf;
  });
  return library;
}

export class PagePreview {
  /** @type {Set<string>} pages that are drawn, or being drawn */
  #asked = new Set();
  #drawn;

  /** @param {(key: string, bitmap: ImageBitmap) => void} drawn called with each page */
  constructor(drawn) {
    this.#drawn = drawn;
  }

  /** Draws what a scene has of pages and was not drawn yet. @param {Scene} scene */
  async follow(scene) {
    const pages = new Map(scene.layouts.flatMap((l) => l.pages ?? []).map((p) => [keyOf(p), p]));
    for (const key of this.#asked) if (!pages.has(key)) this.#asked.delete(key);
    for (const [key, page] of pages) {
      if (this.#asked.has(key)) continue;
      this.#asked.add(key);
      await this.#draw(key, page);
    }
  }

  /**
   * @param {string} key
   * @param {ScenePage} wanted
   */
  async #draw(key, wanted) {
    const pdf = await reader();
    const task = pdf.getDocument({
      url: new URL(wanted.src, location.href).href,
      isEvalSupported: false,
      useWasm: false,
      disableFontFace: true,
    });
    try {
      const page = await (await task.promise).getPage(wanted.page);
      const whole = page.getViewport({ scale: 1 });
      const viewport = page.getViewport({ scale: LONGEST / Math.max(whole.width, whole.height) });
      const canvas = document.createElement("canvas");
      canvas.width = Math.round(viewport.width);
      canvas.height = Math.round(viewport.height);
      await page.render({ canvas, viewport }).promise;
      this.#drawn(key, await createImageBitmap(canvas));
    } catch (e) {
      // The page may be of the past by now; it is asked for once more where it is not.
      this.#asked.delete(key);
      console.warn(`The page was not drawn: ${e}`);
    } finally {
      task.destroy();
    }
  }
}
