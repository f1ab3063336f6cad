// @ts-check
// Pictures printed on pieces: fetched once each, painted clipped to the paper.

export class Prints {
  /** Address of the page that the pictures belong to. */
  page = "";
  #arrived;
  /** @type {Map<string, ImageBitmap | null>} null while it is on its way, and where it did not come */
  #known = new Map();

  /** @param {() => void} arrived called when a picture has come */
  constructor(arrived) {
    this.#arrived = arrived;
  }

  /** Lets go of pictures that a scene has no more. @param {Scene} scene */
  keep(scene) {
    const used = new Set(Object.values(scene.pieces).flatMap((p) => (p.pictures ?? []).map((q) => q.src)));
    for (const [src, bitmap] of this.#known) {
      if (used.has(src)) continue;
      bitmap?.close();
      this.#known.delete(src);
    }
  }

  /**
   * @param {OffscreenCanvasRenderingContext2D} g in the piece's coordinates
   * @param {Path2D} paper
   * @param {ScenePicture[]} pictures
   */
  paint(g, paper, pictures) {
    for (const { src, map, width, height, pattern } of pictures) {
      const bitmap = this.#bitmap(src);
      if (!bitmap) continue;
      g.save();
      g.clip(paper, "evenodd");
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
