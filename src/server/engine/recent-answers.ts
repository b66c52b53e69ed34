import { LRUCache } from "lru-cache";

/**
 * Answers to what was asked lately, by id: whoever asks again with the same id hears what came of it the
 * first time, also while that is still under way.
 */
export class RecentAnswers<T> {
  private readonly answers: LRUCache<string, Promise<T>>;

  constructor(kept: number) {
    this.answers = new LRUCache({ max: kept });
  }

  /** `keep` says of an answer whether it is one; what is none may be asked again. */
  once(id: string, work: () => Promise<T>, keep: (answer: T) => boolean): Promise<T> {
    const before = this.answers.get(id);
    if (before !== undefined) return before;
    const answer = work().then(
      (value) => {
        if (!keep(value)) this.answers.delete(id);
        return value;
      },
      (error: unknown) => {
        this.answers.delete(id);
        throw error;
      },
    );
    this.answers.set(id, answer);
    return answer;
  }
}
