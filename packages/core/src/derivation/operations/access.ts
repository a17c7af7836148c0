import { setting, type SettingPlace } from '../../arrangement/index.js';
import type { Access, Operation, Security } from '../../contract/index.js';
import { becauseSetAt, valueOf, type DerivationContext } from '../context.js';
import type { ResolvedCustom } from '../customOperations/index.js';
import { SCHEMES } from './schemes.js';

const ANYBODY: Access = { kind: 'anonymous' };
const WHOEVER: Access = { kind: 'authenticated' };

/** Who may carry out an operation; anybody where no credentials are asked for at all. */
export function accessOf(context: DerivationContext, at: SettingPlace, own: ResolvedCustom | null): Access {
  if (valueOf(context, 'security').length === 0) return ANYBODY;
  const chosen = chosenAccess(context, at);
  switch (own?.custom.kind) {
    case 'verify':
      if (!NEAR.has(setting(context.arrangement, 'access', at).level)) return ANYBODY;
      if (chosen.kind !== 'anonymous') reportGuarded(context, at, own);
      return chosen;
    case 'revoke':
    case 'caller':
      return chosen.kind === 'anonymous' ? WHOEVER : chosen;
    case 'query':
    case 'find':
    case 'aggregate':
    case 'many':
    case 'assign':
    case 'create':
    case 'fixed':
    case undefined:
      return chosen;
  }
}

/** Levels of what is chosen for a resource or an operation itself. */
const NEAR: ReadonlySet<string> = new Set(['resource', 'operation']);

/** Who signs in has no credentials yet. */
function reportGuarded(
  context: DerivationContext,
  at: SettingPlace,
  { operation, entity }: ResolvedCustom,
): void {
  context.findings.push({
    id: 'custom.guarded',
    severity: 'doubtful',
    message: `${operation.name} of ${entity.name} asks for credentials, which whoever signs in does not have yet.`,
    about: operation.id,
    reasons: [becauseSetAt(context, 'finding.guarded', ['access'], at, entity)],
  });
}

function chosenAccess(context: DerivationContext, at: SettingPlace): Access {
  switch (valueOf(context, 'access', at)) {
    case 'anonymous':
      return ANYBODY;
    case 'authenticated':
      return WHOEVER;
    case 'role':
      return { kind: 'role', role: valueOf(context, 'role', at) };
  }
}

/** How clients prove who they are, and the roles that are asked for. */
export function securityOf(context: DerivationContext, operations: readonly Operation[]): Security {
  const schemes = valueOf(context, 'security').map((scheme) => SCHEMES[scheme]);
  const roles =
    schemes.length === 0
      ? new Set<string>()
      : new Set(operations.flatMap(({ access }) => (access.kind === 'role' ? [access.role] : [])));
  return { schemes, keyHeader: valueOf(context, 'keyHeader'), roles: [...roles].sort() };
}
