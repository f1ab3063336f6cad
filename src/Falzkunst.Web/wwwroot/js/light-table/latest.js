// @ts-check
/**
 * Asks while a hand moves, one question after the other; of those that pile up only the last is asked.
 * @template Q, A
 */
export class Latest {
  /** @type {(question: Q) => Promise<A | null>} */
  #ask;
  #isAsking = false;
  /** @type {{ question: Q, show: (answer: A) => void } | null} */
  #next = null;
  #isOver = false;

  /** @param {(question: Q) => Promise<A | null>} ask answers null where there is no answer */
  constructor(ask) {
    this.#ask = ask;
  }

  /**
   * @param {Q} question
   * @param {(answer: A) => void} show
   */
  async ask(question, show) {
    this.#next = { question, show };
    if (this.#isAsking) return;
    this.#isAsking = true;
    while (this.#next && !this.#isOver) {
      const asked = this.#next;
      this.#next = null;
      const answer = await this.#ask(asked.question).catch(() => null);
      if (answer !== null && !this.#isOver) asked.show(answer);
    }
    this.#isAsking = false;
  }

  /** The hand has let go; what is still on its way is not shown. */
  end() {
    this.#isOver = true;
  }
}
