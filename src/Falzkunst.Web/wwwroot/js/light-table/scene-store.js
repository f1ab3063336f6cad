// @ts-check
// The scene that the table shows: fetched without what is here already, and compared with what the page shows.
import { complete } from "./scene.js";
import { now, short } from "../picked.js";
import { headers } from "../requests.js";

/** @typedef {{ sent: Scene, hadNothing: boolean, hasOtherSheets: boolean }} Arrival */

export class SceneStore {
  /** @type {Scene | null} */
  #scene = null;
  /** @type {string | null} */
  mode = null;
  #number = 0;
  #isAsking = false;
  /** @type {string | null} a head that the page will show in a moment */
  #expected = null;
  /** @type {string | null} the pieces that the scene was asked for with */
  #followed = null;
  #address;
  #follows;
  #arrived;
  #differs;

  /**
   * @param {{ address: string, modes: string[], follows: boolean, arrived: (a: Arrival) => void, differs: () => void }} of
   *   follows: the scene is another for another pick; arrived: called with each scene; differs: the page shows another head
   */
  constructor({ address, modes, follows, arrived, differs }) {
    this.#address = address;
    this.#follows = follows;
    this.#arrived = arrived;
    this.#differs = differs;
    this.mode = modes[0] ?? null;
  }

  get scene() {
    return this.#scene;
  }

  /** The scene, where one is surely there. */
  get loaded() {
    if (!this.#scene) throw new Error("There is no scene yet.");
    return this.#scene;
  }

  /** The layout that is shown. */
  get layout() {
    const { layouts } = this.loaded;
    return layouts.find((l) => l.name === this.mode) ?? layouts[0];
  }

  get isEmpty() {
    return this.loaded.layouts.every((l) => l.items.length + l.loose.length + l.frames.length === 0);
  }

  /** The scene was asked for with other pieces than those picked now, and depends on them. */
  get isBehindPick() {
    return this.#follows && now().pieces.join() !== this.#followed;
  }

  /** Fetches the scene again; null where a newer question took its place, or the server did not answer. */
  async reload() {
    const asked = ++this.#number;
    this.#isAsking = true;
    const followed = now().pieces.join();
    const answer = await this.#ask();
    if (!answer.ok || asked !== this.#number) return;
    /** @type {Scene} */
    const sent = await answer.json();
    if (asked !== this.#number) return;
    this.#isAsking = false;
    const hadNothing = !this.#scene || this.isEmpty;
    const sheets = this.#sheetCount;
    this.#followed = followed;
    this.#scene = complete(sent, this.#scene);
    this.mode ??= this.#scene.layouts[0].name;
    this.#arrived({ sent, hadNothing, hasOtherSheets: sheets !== this.#sheetCount });
    if (!this.#expected) this.#compare();
  }

  /**
   * The page is about to show another head: the table need not wait until ledger and tray are in place.
   * @param {string} head
   */
  expect(head) {
    if (this.#follows || !this.#scene) return;
    this.#expected = head;
    this.reload();
  }

  /**
   * The page shows another head.
   * @param {string} head
   */
  showsHead(head) {
    const isOnItsWay = this.#expected === head;
    this.#expected = null;
    if (!isOnItsWay) this.reload();
    else if (!this.#isAsking) this.#compare();
  }

  // The project may have moved on between page and scene.
  #compare() {
    if (String(this.#scene?.head) !== document.body.dataset.head) this.#differs();
  }

  #ask() {
    const url = new URL(this.#address, location.href);
    if (document.body.dataset.selected) url.searchParams.set("at", short(document.body.dataset.selected));
    if (!this.#scene) return fetch(url);
    const have = Object.values(this.#scene.pieces).map((p) => p.version);
    return fetch(url, { method: "POST", headers: headers(), body: new URLSearchParams({ have: have.join(" ") }) });
  }

  get #sheetCount() {
    return this.#scene ? this.layout.frames.filter((f) => f.kind === "sheet").length : 0;
  }
}
