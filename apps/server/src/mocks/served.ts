import type { ServedName } from '@isomeros/api';
import type { EndpointRow } from '../database/tables.js';

/** What stands behind one port of a mock: an arrangement, which moves with the design, or a release, which never does. */
export type Served =
  | { readonly kind: 'arrangement'; readonly name: string }
  | { readonly kind: 'release'; readonly label: string };

/** What a mock serves on a port; 0 before it has one. */
export interface ServedOnPort {
  readonly served: Served;
  readonly port: number;
  /** Whether it answers requests that name no version, where a header tells it from others. */
  readonly unversioned: boolean;
}

/** How it is called among others of its kind. */
export const servedName = (served: Served): string =>
  served.kind === 'arrangement' ? served.name : served.label;

/** How it is called where both may stand. */
export const servedText = (served: Served): string =>
  served.kind === 'arrangement' ? served.name : `release ${served.label}`;

/** How it is named in what is sent and answered. */
export const servedMember = (served: Served): ServedName =>
  served.kind === 'arrangement' ? { arrangement: served.name } : { release: served.label };

const namesOf =
  (kind: Served['kind']) =>
  (endpoints: readonly Pick<ServedOnPort, 'served'>[]): readonly string[] =>
    endpoints.flatMap(({ served }) => (served.kind === kind ? [servedName(served)] : []));

/** The names of the arrangements that a mock serves. */
export const servedArrangements = namesOf('arrangement');

/** The labels of the releases that a mock serves. */
export const servedReleases = namesOf('release');

/** An endpoint as it is stored. */
export const toEndpointRow = (
  mockId: string,
  { served, port, unversioned }: ServedOnPort,
  position: number,
): EndpointRow => ({ mockId, kind: served.kind, name: servedName(served), position, port, unversioned });

export const fromEndpointRow = ({ kind, name, port, unversioned }: EndpointRow): ServedOnPort => ({
  served: kind === 'arrangement' ? { kind, name } : { kind, label: name },
  port,
  unversioned,
});
