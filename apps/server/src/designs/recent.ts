import { LRUCache } from 'lru-cache';

/** Keeps the latest answers to questions, each a promise; one that failed is forgotten. */
export class RecentAnswers<T> {
  private readonly kept: LRUCache<string, Promise<T>>;

  constructor(most: number) {
    this.kept = new LRUCache({ max: most });
  }

  get(key: string, ask: () => Promise<T>): Promise<T> {
    const known = this.kept.get(key);
    if (known !== undefined) return known;
    const answer = ask();
    this.kept.set(key, answer);
    answer.catch(() => {
      this.kept.delete(key);
    });
    return answer;
  }
}
