import type { Mock, ServedName } from '@isomeros/api';

/** What stands behind one base URL: an arrangement, or a release, of one of the mocks of a design. */
export interface MockEndpoint {
  readonly mock: Mock;
  readonly kind: 'arrangement' | 'release';
  readonly name: string;
  readonly url: string;
}

/** Everything that some mocks serve, arrangements first. */
export function endpointsOf(mocks: readonly Mock[]): readonly MockEndpoint[] {
  const endpoints = mocks.flatMap((mock): MockEndpoint[] => [
    ...mock.arrangements.map((name): MockEndpoint => {
      return { mock, kind: 'arrangement', name, url: mock.baseUrls[name] ?? '' };
    }),
    ...mock.releases.map((name): MockEndpoint => {
      return { mock, kind: 'release', name, url: mock.releaseUrls[name] ?? '' };
    }),
  ]);
  const place = ({ kind }: MockEndpoint): number => (kind === 'arrangement' ? 0 : 1);
  return [...endpoints].sort((a, b) => place(a) - place(b));
}

export const endpointKey = ({ mock, kind, name }: MockEndpoint): string => `${mock.id} ${kind} ${name}`;

export const endpointText = ({ kind, name }: MockEndpoint): string =>
  kind === 'arrangement' ? name : `release ${name}`;

/** What is served, as the server is told which contract is meant. */
export const contractOf = ({ kind, name }: Pick<MockEndpoint, 'kind' | 'name'>): ServedName =>
  kind === 'arrangement' ? { arrangement: name } : { release: name };

/** The endpoint that was chosen, else that of the arrangement that is looked at, else the first one. */
export function selectedEndpoint(
  endpoints: readonly MockEndpoint[],
  chosen: string | null,
  arrangement: string,
): MockEndpoint | null {
  return (
    endpoints.find((endpoint) => endpointKey(endpoint) === chosen) ??
    endpoints.find(({ kind, name }) => kind === 'arrangement' && name === arrangement) ??
    endpoints[0] ??
    null
  );
}

/** Whether an endpoint answers requests that name no version; `null` where no header tells it from others. */
export function answersUnversioned(
  endpoints: readonly MockEndpoint[],
  { mock, kind, name, url }: MockEndpoint,
): boolean | null {
  const told = endpoints.filter((other) => other.mock.id === mock.id && other.url === url);
  if (told.length < 2) return null;
  const chosen = told.find((one) =>
    one.kind === 'arrangement'
      ? mock.unversioned?.arrangement === one.name
      : mock.unversioned?.release === one.name,
  );
  const answering = chosen ?? told[0];
  return answering?.kind === kind && answering.name === name;
}
