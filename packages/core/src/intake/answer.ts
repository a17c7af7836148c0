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
  const { assumed, counts } = intake;
  return { ...finishIntake(model.name, model.declarations, report), assumed, counts };
}
