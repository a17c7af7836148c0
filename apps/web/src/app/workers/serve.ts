import type { AnswerMessage, Answerer, WorkerProtocol, QuestionMessage } from './protocol.js';

/** Answers the questions that this worker is asked. */
export function serve<P extends WorkerProtocol>(answerer: Answerer<P>): void {
  const tell = (message: AnswerMessage): void => self.postMessage(message);
  self.onmessage = ({ data }: MessageEvent<QuestionMessage>): void => {
    tell(answerTo(answerer, data, (done) => tell({ number: data.number, kind: 'progress', done })));
  };
}

/** The answer to one question, or why there is none. */
export function answerTo<P extends WorkerProtocol>(
  answerer: Answerer<P>,
  { number, kind, question }: QuestionMessage,
  progress: (done: number) => void,
): AnswerMessage {
  try {
    const answer = answerer[kind];
    if (answer === undefined) throw new Error(`Nothing answers “${kind}”.`);
    return { number, kind: 'answer', json: JSON.stringify(answer(question, progress)) };
  } catch (error) {
    return { number, kind: 'failed', why: error instanceof Error ? error.message : String(error) };
  }
}
