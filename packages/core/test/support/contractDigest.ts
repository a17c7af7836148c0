import { createHash } from 'node:crypto';
import {
  indexContract,
  wholePath,
  type Contract,
  type Link,
  type Member,
  type MemberType,
} from '@isomeros/core/contract';

/** A contract as a person reviews it: a line a fact; then the hash of everything, reasons and texts included. */
export function contractDigest(contract: Contract): string {
  const { operationsOf } = indexContract(contract);
  const lines = [`${contract.title} ${contract.version} at ${contract.root}`, ''];
  for (const resource of contract.resources) {
    lines.push(
      `${wholePath(contract, resource.id)} (${resource.kind}${resource.canonical ? '' : ', other way'})`,
    );
    for (const { id, method, accepts, returns, responses, query } of operationsOf.get(resource.id) ?? []) {
      const statuses = [...new Set(responses.map(({ status }) => status))].join(' ');
      lines.push(`  ${method} ${id}: ${accepts ?? 'nothing'} → ${returns ?? 'nothing'}; ${statuses}`);
      if (query.length > 0) lines.push(`    ? ${query.map(({ name }) => name).join(' ')}`);
    }
    if (resource.links.length > 0) lines.push(`  → ${resource.links.map(linkText).join(', ')}`);
  }
  lines.push('');
  for (const { name, purpose, members } of contract.shapes)
    lines.push(`${name} (${purpose}): ${members.map(memberText).join(', ')}`);
  lines.push('');
  for (const { id, severity, about } of contract.findings) lines.push(`${severity}: ${id} ${about}`);
  for (const { question, options } of contract.assumptions)
    lines.push(
      `? ${question} ${options.map(({ label, assumed }) => (assumed ? `[${label}]` : label)).join(' / ')}`,
    );
  lines.push('', `sha256 ${createHash('sha256').update(JSON.stringify(contract)).digest('hex')}`, '');
  return lines.join('\n');
}

const linkText = ({ relation, target }: Link): string =>
  'resource' in target ? `${relation} ${target.kind} ${target.resource}` : `${relation} ${target.kind}`;

/** `!` must be there, `-` never goes in. */
const memberText = ({ name, type, required, mode }: Member): string =>
  `${mode === 'returned' || mode === 'ignored' ? '-' : ''}${name}${required ? '!' : ''}: ${typeText(type)}`;

function typeText(type: MemberType): string {
  if (type.kind === 'shape') return type.shape;
  return type.kind === 'list' ? `list of ${typeText(type.of)}` : type.kind;
}
