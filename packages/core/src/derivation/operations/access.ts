import type { SettingPlace, Settings } from '../../arrangement/index.js';
import type { Access, Operation, Security, SecurityScheme } from '../../contract/index.js';
import { valueOf, type Deriving } from '../context.js';

const SCHEMES: Readonly<Record<Settings['security'][number], SecurityScheme>> = {
  basic: 'basic',
  bearer: 'bearer',
  'api key': 'key',
};

const ANYBODY: Access = { kind: 'anonymous' };
const WHOEVER: Access = { kind: 'authenticated' };

/** Who may carry out an operation; anybody where no credentials are asked for at all. */
export function accessOf(deriving: Deriving, at: SettingPlace): Access {
  if (valueOf(deriving, 'security').length === 0) return ANYBODY;
  switch (valueOf(deriving, 'access', at)) {
    case 'anonymous':
      return ANYBODY;
    case 'authenticated':
      return WHOEVER;
    case 'role':
      return { kind: 'role', role: valueOf(deriving, 'role', at) };
  }
}

/** How clients prove who they are, and the roles that are asked for. */
export function securityOf(deriving: Deriving, operations: readonly Operation[]): Security {
  const schemes = valueOf(deriving, 'security').map((scheme) => SCHEMES[scheme]);
  const roles =
    schemes.length === 0
      ? new Set<string>()
      : new Set(operations.flatMap(({ access }) => (access.kind === 'role' ? [access.role] : [])));
  return { schemes, keyHeader: valueOf(deriving, 'keyHeader'), roles: [...roles].sort() };
}
