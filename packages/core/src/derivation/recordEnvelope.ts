import type { Finding, RecordEnvelope } from '../contract/index.js';
import { readJson, isJsonObject, type Json, type Literal } from '../model/index.js';
import { becauseSet, valueOf, type DerivationContext } from './context.js';
import { memberName, structureNames } from './names/members.js';

/** How one record stands in plain JSON; `null` where it is the body. */
export function recordEnvelope(context: DerivationContext): RecordEnvelope | null {
  const chosen = valueOf(context, 'recordEnvelope');
  if (chosen === 'none' || !valueOf(context, 'mediaTypes').includes('json')) return null;
  const member = memberName(context, valueOf(context, 'recordMember'));
  const { links } = structureNames(context);
  const isBeside = valueOf(context, 'links') === 'object' && valueOf(context, 'recordLinks') === 'beside';
  if (isBeside && member === links) context.findings.push(twice(context, member));
  const isApart = isBeside && member !== links;
  const taken = new Set([member, ...(isApart ? [links] : [])]);
  const constants = constantsOf(context).filter(({ name }) => {
    if (!taken.has(name)) {
      taken.add(name);
      return true;
    }
    context.findings.push(twice(context, name));
    return false;
  });
  return { member, of: chosen, links: isApart ? 'beside' : 'inside', constants };
}

function constantsOf(
  context: DerivationContext,
): readonly { readonly name: string; readonly value: Literal | null }[] {
  const text = valueOf(context, 'recordConstants');
  const read = text === '' ? null : readJson(text);
  if (read?.ok !== true || !isJsonObject(read.value)) return [];
  return Object.entries(read.value).map(([name, value]) => ({ name, value: scalarIn(value) }));
}

const scalarIn = (value: Json): Literal | null =>
  typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean' ? value : null;

const twice = (context: DerivationContext, name: string): Finding => ({
  id: 'member.collide',
  severity: 'error',
  message: `Two members beside one record would be called ${name}; the second is left out, links stay inside.`,
  about: 'entry',
  reasons: [becauseSet(context, 'finding.collision', ['recordMember', 'recordConstants', 'linksMember'])],
});
