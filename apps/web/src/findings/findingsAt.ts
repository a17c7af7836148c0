import { operationKey } from '@isomeros/core/arrangement';
import type { Finding, Outline, OutlineResource, Severity } from '@isomeros/core/contract';

/** The part of an identity that names the thing itself: what follows a slash is a part of it. */
const ownerOf = (about: string): string =>
  about.replace(/\/(?:item|back|action|pair|read|flat|flat-item)$/, '');

const namesOf = ({ id, word, via }: OutlineResource): ReadonlySet<string> =>
  new Set([id, ...(word === null ? [] : [word]), ...(via === null ? [] : [via.relationship])]);

/** The findings that concern a resource: those about itself, or about the statement it comes from. */
export function findingsAt(findings: readonly Finding[], resource: OutlineResource): readonly Finding[] {
  const names = namesOf(resource);
  return findings.filter((finding) =>
    subjectsOf(finding).some((id) => names.has(id) || names.has(ownerOf(id))),
  );
}

/** What a finding concerns: what it is about, and the resource whose link was decided about. */
function subjectsOf({ about, cause }: Finding): readonly string[] {
  return cause?.kind === 'link' || cause?.kind === 'own-link' ? [about, cause.resource] : [about];
}

const WORST_FIRST: readonly Severity[] = ['error', 'breaking', 'doubtful'];

/** For each resource with findings of its own the severity of the worst. Linear in both. */
export function severitiesOf(
  findings: readonly Finding[],
  { resources, operations }: Pick<Outline, 'resources' | 'operations'>,
): ReadonlyMap<string, Severity> {
  const worst = new Map<string, Severity>();
  const note = (id: string, severity: Severity): void => {
    const known = worst.get(id);
    if (known === undefined || WORST_FIRST.indexOf(severity) < WORST_FIRST.indexOf(known))
      worst.set(id, severity);
  };
  const resourceOf = new Map(
    operations.flatMap(({ id, resource, verb }) => [
      [id, resource] as const,
      [operationKey(resource, verb), resource] as const,
    ]),
  );
  for (const finding of findings)
    for (const id of subjectsOf(finding)) note(resourceOf.get(id) ?? id, finding.severity);
  return new Map(
    resources.flatMap(({ id, word }) => {
      const severity = worst.get(id) ?? (word === null ? undefined : worst.get(word));
      return severity === undefined ? [] : [[id, severity] as const];
    }),
  );
}
