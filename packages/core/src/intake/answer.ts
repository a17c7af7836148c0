import { appendAll, editModel, type Model } from '../model/index.js';
import { Report, type Intake } from './report.js';
import { finishIntake } from './finishIntake.js';

/**
 * The intake after its questions were answered: for each question, by its index, the index of the chosen
 * option; the assumption stands where there is none.
 */
export function answer(intake: Intake, chosen: Readonly<Record<number, number>>): Intake {
  const edits = intake.asked.flatMap(({ options }, index) => options[chosen[index] ?? -1]?.edits ?? []);
  if (edits.length === 0) return intake;
  const model = edits.reduce<Model>(editModel, intake.model);
  const report = new Report();
  appendAll(report.understood, intake.understood);
  appendAll(report.asked, intake.asked);
  appendAll(report.leftOut, intake.leftOut);
  report.problem = intake.problem;
  report.records = intake.records;
  const { assumed, counts } = intake;
  return { ...finishIntake(model.name, model.declarations, report), assumed, counts };
}

/** An answer that no question of an intake has: the question as it was named, and what was expected. */
export interface WrongAnswer {
  readonly question: string;
  readonly message: string;
}

/** Answers that no question has. */
export const wrongAnswers = (
  { asked }: Pick<Intake, 'asked'>,
  chosen: Readonly<Record<string, unknown>>,
): readonly WrongAnswer[] =>
  Object.entries(chosen).flatMap(([question, option]): WrongAnswer[] => {
    const options = /^(?:0|[1-9]\d*)$/.test(question) ? asked[Number(question)]?.options : undefined;
    if (options === undefined || options.length === 0)
      return [{ question, message: `There is no such question with options; ${asked.length} are asked.` }];
    return typeof option === 'number' && options[option] !== undefined
      ? []
      : [{ question, message: `Expected an option from 0 to ${options.length - 1}.` }];
  });
