import { becauseSetAt, valueOf, type DerivationContext } from '../context.js';
import { formOf } from '../operations/forms.js';
import type { Offers } from '../operations/offers.js';
import type { PlacedResource } from '../place/index.js';

/** Reports that lists are answered as a whole, however long they grow; said once for all of them. */
export function findUnbounded(context: DerivationContext, offers: Offers): void {
  const lists = offers.resources.filter(
    ({ id, kind }) =>
      (kind === 'collection' || kind === 'reverse' || kind === 'pairing') &&
      offers.offered(id).includes('list'),
  );
  const deadEnd = lists.find((list) => isDeadEnd(context, list));
  if (deadEnd !== undefined) reportDeadEnd(context, deadEnd);
  const whole = lists.filter((list) => formOf(context, list).style === 'none');
  const [first] = whole;
  if (first === undefined) return;
  const which = whole.length === 1 ? `The list at ${first.path} is` : `${whole.length} lists are`;
  context.findings.push({
    id: 'list.unbounded',
    severity: 'doubtful',
    message: `${which} answered as a whole, however long it grows.`,
    about: first.id,
    reasons: [becauseSetAt(context, 'list.whole', ['pageStyle'], { resource: first.id })],
  });
}

/** A cursor is told in the body or by a link; where neither is, nobody gets beyond the first page. */
function isDeadEnd(context: DerivationContext, list: PlacedResource): boolean {
  const { style, envelope } = formOf(context, list);
  return (
    style === 'cursor' &&
    envelope === 'bare' &&
    valueOf(context, 'links') === 'none' &&
    valueOf(context, 'mediaTypes').includes('json')
  );
}

function reportDeadEnd(context: DerivationContext, { id, path }: PlacedResource): void {
  context.findings.push({
    id: 'list.dead-end',
    severity: 'doubtful',
    message: `Nothing in a bare list such as ${path} tells the cursor of its next page.`,
    about: id,
    reasons: [
      becauseSetAt(context, 'finding.dead-end', ['pageStyle', 'envelope', 'links'], { resource: id }),
    ],
  });
}
