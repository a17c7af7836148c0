import { useMemo } from 'react';
import { useAppSelector } from '../app/store.js';
import { facesOf, shownFace, type Face } from './faces.js';

/** Everything the mocks of a design serve, and what of it is looked at; `null` where nothing is served. */
export function useShownFace(design: string): {
  readonly faces: readonly Face[];
  readonly face: Face | null;
} {
  const arrangement = useAppSelector((root) => root.design.arrangement);
  const byId = useAppSelector(({ mocks }) => mocks.byId);
  const chosen = useAppSelector(({ mocks }) => mocks.chosen);
  return useMemo(() => {
    const faces = facesOf(Object.values(byId).filter((mock) => mock.design === design));
    const key = chosen?.arrangement === arrangement ? chosen.face : null;
    return { faces, face: shownFace(faces, key, arrangement) };
  }, [design, arrangement, byId, chosen]);
}
