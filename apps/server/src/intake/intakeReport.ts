import type { IntakeReport } from '@isomeros/api';
import type { Intake } from '@isomeros/core/intake';

/** The report of an intake; its questions without what other answers would change. */
export const reportOf = ({ understood, assumed, asked, leftOut, counts }: Intake): IntakeReport => ({
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
