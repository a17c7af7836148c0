import type { Mock } from '../app/api/types.js';

/** What stands behind one base URL: an arrangement, or a release, of one of the mocks of a design. */
export interface Face {
  readonly mock: Mock;
  readonly kind: 'arrangement' | 'release';
  readonly name: string;
  readonly url: string;
}

/** Everything that some mocks serve, arrangements first. */
export function facesOf(mocks: readonly Mock[]): readonly Face[] {
  const faces = mocks.flatMap((mock): Face[] => [
    ...mock.arrangements.map((name): Face => {
      return { mock, kind: 'arrangement', name, url: mock.baseUrls[name] ?? '' };
    }),
    ...mock.releases.map((name): Face => {
      return { mock, kind: 'release', name, url: mock.releaseUrls[name] ?? '' };
    }),
  ]);
  const place = ({ kind }: Face): number => (kind === 'arrangement' ? 0 : 1);
  return [...faces].sort((a, b) => place(a) - place(b));
}

export const faceKey = ({ mock, kind, name }: Face): string => `${mock.id} ${kind} ${name}`;

export const faceText = ({ kind, name }: Face): string => (kind === 'arrangement' ? name : `release ${name}`);

/** The face that was chosen, else that of the arrangement that is looked at, else the first one. */
export function shownFace(faces: readonly Face[], chosen: string | null, arrangement: string): Face | null {
  return (
    faces.find((face) => faceKey(face) === chosen) ??
    faces.find(({ kind, name }) => kind === 'arrangement' && name === arrangement) ??
    faces[0] ??
    null
  );
}
