import type { SettingPlace, Settings } from '../../arrangement/index.js';
import type { Access, Operation, Security, SecurityScheme } from '../../contract/index.js';
import { valueOf, type DerivationContext } from '../context.js';

const SCHEMES: Readonly<Record<Settings['security'][number], SecurityScheme>> = {
  basic: 'basic',
  bearer: 'bearer',
  'api key': 'key',
};

const ANYBODY: Access = { kind: 'anonymous' };
const WHOEVER: Access = { kind: 'authenticated' };

/** Who may carry out an operation; anybody where no credentials are asked for at all. */
export function accessOf(context: DerivationContext, at: SettingPlace): Access {
  if (valueOf(context, 'security').length === 0) return ANYBODY;
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
