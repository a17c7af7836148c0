import type { MockCredential } from '@isomeros/api';
import { credentialsOf, headersOf } from '@isomeros/core/engine';
import type { Endpoint } from './endpoint.js';

/** Whom an endpoint knows. */
export const credentialsAt = ({ served, service: { contract } }: Endpoint): readonly MockCredential[] =>
  credentialsOf(contract).map((who) => ({
    arrangement: served.kind === 'arrangement' ? served.name : null,
    release: served.kind === 'release' ? served.label : null,
    ...who,
    headers: headersOf(contract, who).map(([name, value]) => ({ name, value })),
  }));
