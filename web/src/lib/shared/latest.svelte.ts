/** Something fetched from the server, whenever it is asked for anew: only the answer to the newest question counts. */
export class Latest<T> {
  value = $state.raw<T | null>(null);
  problem = $state('');
  #asked = 0;

  /**
   * Asks. What is there stays until the answer comes.
   * @param otherwise what is said where the reason says nothing itself.
   * @returns the answer, or null where it failed or was overtaken.
   */
  ask = async (fetch: () => Promise<T>, otherwise = 'It could not be loaded.'): Promise<T | null> => {
    const mine = ++this.#asked;
    try {
      const found = await fetch();
      if (mine !== this.#asked) return null;
      [this.value, this.problem] = [found, ''];
      return found;
    } catch (reason) {
      if (mine === this.#asked) this.problem = reason instanceof Error ? reason.message : otherwise;
      return null;
    }
  };

  /** Takes what is known by now; an answer still under way is older, and dropped. */
  take = (value: T | null) => {
    this.#asked++;
    [this.value, this.problem] = [value, ''];
  };
}
