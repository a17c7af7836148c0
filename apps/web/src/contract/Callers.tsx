import type { Access, SecurityScheme } from '@isomeros/core/contract';
import type { AskProps } from './InOutTable.js';

const SCHEMES: Readonly<Record<SecurityScheme, string>> = {
  basic: 'user and password (Basic)',
  bearer: 'a token (Bearer)',
  key: 'a key in a header',
};

/** Who may call an operation, and how they prove who they are. */
export function Callers({
  contract: { security },
  operation: { access },
}: Pick<AskProps, 'contract' | 'operation'>): React.JSX.Element {
  return (
    <>
      <header className="panel-head">
        <h3>Callers</h3>
      </header>
      <p className="callers">
        {whoMay(access)}
        {access.kind !== 'anonymous' && security.schemes.length > 0 && (
          <span className="quiet">
            , by {security.schemes.map((scheme) => SCHEMES[scheme]).join(' or ')}
            {security.schemes.includes('key') ? ` ${security.keyHeader}` : ''}
          </span>
        )}
      </p>
    </>
  );
}

function whoMay(access: Access): string {
  switch (access.kind) {
    case 'anonymous':
      return 'Anybody, without credentials';
    case 'authenticated':
      return 'Whoever is known';
    case 'role':
      return `Whoever has the role ${access.role}`;
  }
}
