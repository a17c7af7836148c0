import { Button } from 'antd';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { refusalText } from '../app/api/client.js';
import type { Release, ReleaseEnd } from '@isomeros/api';
import { Explained, ExplainedAction } from '../app/help/Explained.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { useMarkReleaseMutation, useRemoveReleaseMutation } from '../design/releasesApi.js';
import { endpointKey, endpointsOf } from '../mock/endpoints.js';
import { useCreateMockMutation } from '../mock/mocksApi.js';
import { ReleaseEndForm } from './ReleaseEndForm.js';
import { arrangementName, endpointChosen } from '../design/viewSlice.js';
import { Notice } from '../app/parts/Notice.js';

interface Props {
  readonly design: string;
  readonly release: Release;
  /** To its published documents. */
  readonly onPublished: () => void;
  /** Back to the operations. */
  readonly onClose: () => void;
}

/** What a release is, where it is to be had, and what can be done with it. */
export function ReleaseHead({ design, release, onPublished, onClose }: Props): React.JSX.Element {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const arrangement = useAppSelector(arrangementName);
  const [createMock] = useCreateMockMutation();
  const [markRelease] = useMarkReleaseMutation();
  const [removeRelease] = useRemoveReleaseMutation();
  const [problem, setProblem] = useState<string | null>(null);
  const place = { design, label: release.label };
  const attempt = async (work: () => Promise<unknown>): Promise<void> => {
    try {
      await work();
      setProblem(null);
    } catch (error) {
      setProblem(refusalText(error));
    }
  };
  const mark = (end: ReleaseEnd | null): void => {
    void attempt(() => markRelease({ ...place, end }).unwrap());
  };
  const serve = (): void => {
    void attempt(async () => {
      const mock = await createMock({ design, arrangements: [], releases: [release.label] }).unwrap();
      const [endpoint] = endpointsOf([mock]);
      if (endpoint !== undefined) dispatch(endpointChosen({ endpoint: endpointKey(endpoint), arrangement }));
      await navigate(`/designs/${design}/mock`);
    });
  };
  const remove = (): void => {
    void attempt(async () => {
      await removeRelease(place).unwrap();
      onClose();
    });
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
        <ExplainedAction by="contract.published" onPress={onPublished}>
          Published documents
        </ExplainedAction>
        <Explained by="contract.serve">
          <Button onClick={serve}>Serve it</Button>
        </Explained>
        <Explained by="contract.remove">
          <Button onClick={remove}>Remove it</Button>
        </Explained>
      </div>
      {problem !== null && <Notice>{problem}</Notice>}
      <ReleaseEndForm key={JSON.stringify(release.end)} release={release} onEnd={mark} />
    </header>
  );
}
