/** Keeps the latest answers to questions, each a promise; one that failed is forgotten. */
export class RecentAnswers<T> {
  private readonly kept = new Map<string, Promise<T>>();

  constructor(private readonly most: number) {}

  get(key: string, ask: () => Promise<T>): Promise<T> {
    const answer = this.kept.get(key) ?? this.forgetFailed(key, ask());
    this.kept.delete(key);
    this.kept.set(key, answer);
    const [oldest] = this.kept.keys();
    if (this.kept.size > this.most && oldest !== undefined) this.kept.delete(oldest);
    return answer;
  }

  private forgetFailed(key: string, answer: Promise<T>): Promise<T> {
    answer.catch(() => {
      this.kept.delete(key);
    });
    return answer;
  }
}
