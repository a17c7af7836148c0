import { breaking, type About } from '../change.js';
import type { Aligned, ContractChange } from '../types.js';

/** What the same request does: another transition, another effect of one's own, or something of another kind. */
export function* compareEffects({ pairs }: Aligned): Generator<ContractChange> {
  for (const { before, after, resourceBefore, resourceAfter, where } of pairs) {
    const isSame =
      before.verb === after.verb &&
      resourceBefore.transition === resourceAfter.transition &&
      JSON.stringify(before.custom) === JSON.stringify(after.custom);
    if (isSame) continue;
    const about: About = { where, resource: resourceAfter.id, reasons: after.reasons };
    yield breaking('sender', about, `${where} does something else.`);
  }
}
