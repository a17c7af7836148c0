import type { IntakeReport } from '@isomeros/api';
import type { ReadIntake } from '../compute/program.js';

/** The report of an intake; its questions without what other answers would change. */
export const reportOf = ({ understood, assumed, asked, leftOut, counts }: ReadIntake): IntakeReport => ({
  understood,
  assumed,
  asked: asked.map(({ line, endLine, question, ground, options }) => ({
    line,
    endLine,
    question,
    ground,
    options: options.map((option) => ({ label: option.label, assumed: option.assumed })),
  })),
  leftOut,
  counts,
});
