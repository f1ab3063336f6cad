// @ts-check
// What is printed on pieces, painted clipped to the paper, its pictures fetched once each; and whole pages that were drawn of a PDF.

export class Prints {
  /** Address of the page that the pictures belong to. */
  page = "";
  #arrived;
  /** @type {Map<string, ImageBitmap | null>} null while it is on its way, and where it did not come */
  #known = new Map();
  /** @type {Map<string, ImageBitmap>} pages of PDFs */
  #pages = new Map();
  /** @type {WeakMap<ScenePrint, Path2D>} */
  #paths = new WeakMap();
  /** @type {WeakMap<ScenePrint, Path2D>} areas in the planes of their shadings */
  #shaded = new WeakMap();

  /** @param {() => void} arrived called when a picture has come */
  constructor(arrived) {
    this.#arrived = arrived;
  }

  /** Lets go of pictures and pages that a scene has no more. @param {Scene} scene */
  keep(scene) {
    const used = new Set(Object.values(scene.pieces).flatMap((p) => (p.prints ?? []).map((q) => q.picture?.src)));
    drop(this.#known, (src) => used.has(src));
    const pages = new Set(scene.layouts.flatMap((l) => (l.pages ?? []).map(keyOf)));
    drop(this.#pages, (key) => pages.has(key));
  }

  /** A page was drawn. @param {string} key @param {ImageBitmap} bitmap */
  put(key, bitmap) {
    this.#pages.get(key)?.close();
    this.#pages.set(key, bitmap);
    this.#arrived();
  }

  /** @param {OffscreenCanvasRenderingContext2D} g @param {ScenePage} page */
  paintPage(g, page) {
    const bitmap = this.#pages.get(keyOf(page));
    if (!bitmap) return;
    const [x0, y0, x1, y1] = page.box;
    g.save();
    g.imageSmoothingQuality = "high";
    // White of a page lets what is marked under it be seen.
    g.globalCompositeOperation = "multiply";
    g.drawImage(bitmap, x0, y0, x1 - x0, y1 - y0);
    g.restore();
  }

  /**
   * @param {OffscreenCanvasRenderingContext2D} g in the piece's coordinates
   * @param {Path2D} paper
   * @param {ScenePrint[]} prints
   */
  paint(g, paper, prints) {
    g.save();
    g.clip(paper, "evenodd");
    g.setLineDash([]);
    for (const print of prints) {
      if (print.picture) this.#paintPicture(g, paper, print.picture);
      else if (print.shading) this.#shade(g, print, print.shading);
      else if (print.fill) {
        g.fillStyle = print.fill;
        g.fill(this.#path(print), print.evenOdd ? "evenodd" : "nonzero");
      } else if (print.stroke) {
        g.strokeStyle = print.stroke;
        g.lineWidth = print.width ?? 0.1;
        g.lineCap = print.round ? "round" : "butt";
        g.lineJoin = print.round ? "round" : "miter";
        g.stroke(this.#path(print));
      }
    }
    g.restore();
  }

  /** @param {OffscreenCanvasRenderingContext2D} g @param {ScenePrint} print @param {SceneShading} shading */
  #shade(g, print, { map, at, colours, focus }) {
    const gradient = focus ? g.createRadialGradient(focus[0], focus[1], 0, 0, 0, 1) : g.createLinearGradient(0, 0, 1, 0);
    at.forEach((share, i) => gradient.addColorStop(share, colours[i]));
    // Filled in the shading's plane: an area that is clipped to has no smooth edge.
    let own = this.#shaded.get(print);
    if (!own) {
      own = new Path2D();
      own.addPath(this.#path(print), new DOMMatrix(map).inverse());
      this.#shaded.set(print, own);
    }
    g.save();
    g.transform(...map);
    g.fillStyle = gradient;
    g.fill(own, print.evenOdd ? "evenodd" : "nonzero");
    g.restore();
  }

  /** @param {ScenePrint} print */
  #path(print) {
    let path = this.#paths.get(print);
    if (!path) this.#paths.set(print, (path = new Path2D(print.path)));
    return path;
  }

  /**
   * @param {OffscreenCanvasRenderingContext2D} g
   * @param {Path2D} paper
   * @param {ScenePicture} picture
   */
  #paintPicture(g, paper, { src, map, width, height, pattern }) {
    const bitmap = this.#bitmap(src);
    if (!bitmap) return;
    g.save();
    g.imageSmoothingQuality = "medium";
    if (pattern) {
      const tiles = /** @type {CanvasPattern} */ (g.createPattern(bitmap, "repeat"));
      tiles.setTransform(new DOMMatrix(map).scale(width / bitmap.width, height / bitmap.height));
      g.fillStyle = tiles;
      g.fill(paper, "evenodd");
    } else {
      g.transform(...map);
      g.drawImage(bitmap, 0, 0, width, height);
    }
    g.restore();
  }

  /** @param {string} src */
  #bitmap(src) {
    const known = this.#known.get(src);
    if (known === undefined) {
      this.#known.set(src, null);
      this.#fetch(src);
    }
    return known ?? null;
  }

  /** @param {string} src */
  async #fetch(src) {
    const answer = await fetch(new URL(src, this.page));
    if (!answer.ok) return;
    const bitmap = await createImageBitmap(await answer.blob());
    if (!this.#known.has(src)) return bitmap.close();
    this.#known.set(src, bitmap);
    this.#arrived();
  }
}

/** What a drawn page is known by. @param {ScenePage} page */
export const keyOf = ({ src, page }) => `${src} ${page}`;

/**
 * @param {Map<string, ImageBitmap | null>} kept
 * @param {(key: string) => boolean} isUsed
 */
function drop(kept, isUsed) {
  for (const [key, bitmap] of kept) {
    if (isUsed(key)) continue;
    bitmap?.close();
    kept.delete(key);
  }
}
