/**
 * Answers to what was asked lately, by id: whoever asks again with the same id hears what came of it the
 * first time, also while that is still under way. Two generations, so that forgetting costs nothing per id.
 */
export class RecentAnswers<T> {
  private young = new Map<string, Promise<T>>();
  private old = new Map<string, Promise<T>>();

  constructor(private readonly kept: number) {}

  /** `keep` says of an answer whether it is one; what is none may be asked again. */
  once(id: string, work: () => Promise<T>, keep: (answer: T) => boolean): Promise<T> {
    const before = this.young.get(id) ?? this.old.get(id);
    if (before !== undefined) return before;
    const forget = (): void => {
      this.young.delete(id);
      this.old.delete(id);
    };
    const answer = work().then(
      (value) => {
        if (!keep(value)) forget();
        return value;
      },
      (error: unknown) => {
        forget();
        throw error;
      },
    );
    this.young.set(id, answer);
    if (this.young.size >= this.kept) {
      this.old = this.young;
      this.young = new Map();
    }
    return answer;
  }
}
