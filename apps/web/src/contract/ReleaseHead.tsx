import { Button } from 'antd';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, refusalText } from '../app/api/client.js';
import { PUBLICATION_FORMATS, PUBLICATION_NAMES } from '@isomeros/core/publication';
import { pathOf, type Release, type ReleaseEnd } from '@isomeros/api';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { loadReleases } from '../design/releasesSlice.js';
import { endpointKey, endpointsOf } from '../mock/endpoints.js';
import { endpointChosen, mockChanged } from '../mock/mocksSlice.js';
import { ReleaseEndForm } from './ReleaseEndForm.js';

interface Props {
  readonly design: string;
  readonly release: Release;
  /** Back to the operations. */
  readonly onClose: () => void;
}

/** What a release is, where it is to be had, and what can be done with it. */
export function ReleaseHead({ design, release, onClose }: Props): React.JSX.Element {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const arrangement = useAppSelector((state) => state.design.arrangement);
  const [problem, setProblem] = useState<string | null>(null);
  const place = { id: design, label: release.label };
  const attempt = async (work: () => Promise<unknown>): Promise<void> => {
    try {
      await work();
      setProblem(null);
    } catch (error) {
      setProblem(refusalText(error));
    }
  };
  const mark = (end: ReleaseEnd | null): void => {
    void attempt(async () => {
      await api.markRelease(design, release.label, end);
      await dispatch(loadReleases({ design }));
    });
  };
  const serve = (): void => {
    void attempt(async () => {
      const mock = await api.createMock(design, [], [release.label]);
      dispatch(mockChanged(mock));
      const [endpoint] = endpointsOf([mock]);
      if (endpoint !== undefined) dispatch(endpointChosen({ endpoint: endpointKey(endpoint), arrangement }));
      await navigate(`/designs/${design}/mock`);
    });
  };
  const takeBack = async (): Promise<void> => {
    try {
      await api.removeRelease(design, release.label);
      const loaded = await dispatch(loadReleases({ design }));
      if (loadReleases.rejected.match(loaded)) setProblem(loaded.error.message ?? 'It was taken back.');
      else onClose();
    } catch (error) {
      setProblem(refusalText(error));
    }
  };
  const made = new Date(release.madeAt).toLocaleString(undefined, {
    dateStyle: 'medium',
    timeStyle: 'short',
  });
  return (
    <header className="operation-head">
      <div className="title">
        <h2>Release {release.label}</h2>
        <span className="quiet">{made}</span>
        <span className="end">
          <button type="button" className="text-button" onClick={onClose}>
            Back to the operations
          </button>
        </span>
      </div>
      <p className="summary">
        Arrangement {release.arrangement}, version {release.version}, revision {release.revision}:{' '}
        {release.operations} operations. It never changes.
      </p>
      <div className="release-links">
        {PUBLICATION_NAMES.map((document) => (
          <a
            key={document}
            href={pathOf('GET /api/designs/{id}/releases/{label}/{document}', { ...place, document })}
            target="_blank"
            rel="noreferrer"
          >
            {PUBLICATION_FORMATS[document].title}
          </a>
        ))}
        <Button size="small" onClick={serve}>
          Serve it
        </Button>
        <Button size="small" onClick={() => void takeBack()}>
          Take it back
        </Button>
      </div>
      {problem !== null && (
        <div className="notice bad" role="alert">
          {problem}
        </div>
      )}
      <ReleaseEndForm key={JSON.stringify(release.end)} release={release} onEnd={mark} />
    </header>
  );
}
