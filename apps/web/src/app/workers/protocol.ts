/** What a worker can be asked: by the name of a question, what is asked and what is answered. */
export type WorkerProtocol = Readonly<
  Record<string, { readonly question: unknown; readonly answer: unknown }>
>;

/** Tells how much of a long answer is done, from 0 to 1. */
export type TellProgress = (done: number) => void;

/** What answers every question of a protocol. What it throws is told to the one who asked. */
export type Answerer<P extends WorkerProtocol> = {
  readonly [Kind in keyof P]: (question: P[Kind]['question'], progress: TellProgress) => P[Kind]['answer'];
};

/** A way to ask the questions of a protocol; they are answered in the order they are asked. */
export interface Port<P extends WorkerProtocol> {
  /** Rejects where the answer failed, with why. */
  ask<Kind extends keyof P & string>(
    kind: Kind,
    question: P[Kind]['question'],
    progress?: TellProgress,
  ): Promise<P[Kind]['answer']>;
  /** Ends what answers; whatever is still asked is never answered. */
  end(): void;
}

/** A question on its way to a worker. `number` comes back with the answer. */
export interface QuestionMessage {
  readonly number: number;
  readonly kind: string;
  readonly question: unknown;
}

/** What a worker says of a question; the answer as JSON, which is read many times faster than a copy is made of it. */
export type AnswerMessage =
  | { readonly number: number; readonly kind: 'progress'; readonly done: number }
  | { readonly number: number; readonly kind: 'answer'; readonly json: string }
  | { readonly number: number; readonly kind: 'failed'; readonly why: string };
