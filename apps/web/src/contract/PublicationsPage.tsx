import type { Publication } from '@isomeros/api';
import { Checkbox, Segmented } from 'antd';
import { useState } from 'react';
import { refusalText } from '../app/api/client.js';
import { Explained } from '../app/help/Explained.js';
import { amount } from '../app/parts/amount.js';
import { Notice } from '../app/parts/Notice.js';
import { useAppSelector } from '../app/store.js';
import { releasesOf } from '../design/releases.js';
import { arrangementName } from '../design/viewSlice.js';
import { useListPublicationsQuery, type PublishedSource } from './publicationsApi.js';

interface Props {
  readonly design: string;
  /** The label of the release that is shown; `null` for what is implied now. */
  readonly release: string | null;
  readonly onRelease: (label: string | null) => void;
  /** Back to the operations. */
  readonly onClose: () => void;
}

const DRAFT = 'draft';

/** Every open format in which the contract is to be had, with what it cannot say. */
export function PublicationsPage({ design, release, onRelease, onClose }: Props): React.JSX.Element {
  const releases = useAppSelector((state) => releasesOf(state, design));
  const arrangement = useAppSelector(arrangementName);
  const revision = useAppSelector((state) => state.document.design?.revision ?? 0);
  const [namesMock, setNamesMock] = useState(false);
  const source: PublishedSource =
    release === null
      ? { kind: 'draft', design, arrangement, revision }
      : { kind: 'release', design, label: release };
  const { data, error } = useListPublicationsQuery(source);
  const choices = [{ value: '', label: DRAFT }, ...releases.map(({ label }) => ({ value: label, label }))];
  return (
    <article className="operation-page publications-page" aria-label="Publications">
      <header className="operation-head">
        <div className="title">
          <h2>Published</h2>
          <Segmented
            aria-label="What is published"
            value={release ?? ''}
            options={choices}
            onChange={(label) => onRelease(label === '' ? null : label)}
          />
          <span className="end">
            <button type="button" className="text-button" onClick={onClose}>
              Back to the operations
            </button>
          </span>
        </div>
        <p className="summary">
          The address of each document stays the same.{' '}
          {release === null ? 'It follows the design.' : 'What it answers never changes.'}
        </p>
        <Explained by="contract.withMock">
          <Checkbox checked={namesMock} onChange={({ target }) => setNamesMock(target.checked)}>
            with the address of the mock, in OpenAPI
          </Checkbox>
        </Explained>
      </header>
      <div className="publication-list" tabIndex={0} role="group" aria-label="Formats">
        {error !== undefined && <Notice>{refusalText(error)}</Notice>}
        {data === undefined && error === undefined && <p className="empty-note">Writing.</p>}
        {data !== undefined && (
          <table className="publications">
            <thead>
              <tr>
                <th scope="col">format</th>
                <th scope="col">file</th>
                <th scope="col">cannot say</th>
                <th scope="col" className="deeds">
                  document
                </th>
              </tr>
            </thead>
            {data.map((publication) => (
              <PublicationRow
                key={publication.format}
                publication={publication}
                query={namesMock && publication.format.startsWith('openapi') ? '?server=mock' : ''}
              />
            ))}
          </table>
        )}
      </div>
    </article>
  );
}

interface RowProps {
  readonly publication: Publication;
  readonly query: string;
}

/** A document: to be read, copied or kept; what it cannot say under it. */
function PublicationRow({ publication, query }: RowProps): React.JSX.Element {
  const { format, title, href, cannotSay } = publication;
  const [showsUnsaid, setShowsUnsaid] = useState(false);
  const [isCopied, setCopied] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const address = href + query;
  const copy = async (): Promise<void> => {
    try {
      const response = await fetch(address);
      const text = await response.text();
      if (!response.ok) throw new Error(text);
      await navigator.clipboard.writeText(text);
      setCopied(true);
      setProblem(null);
    } catch (error) {
      setProblem(refusalText(error));
    }
  };
  return (
    <tbody>
      <tr>
        <th scope="row">{title}</th>
        <td>
          <a href={address} target="_blank" rel="noreferrer">
            <code>{format}</code>
          </a>
        </td>
        <td>
          {cannotSay.length > 0 && (
            <button
              type="button"
              className="plain-button unsaid"
              aria-expanded={showsUnsaid}
              onClick={() => setShowsUnsaid(!showsUnsaid)}
            >
              {amount(cannotSay.length, 'thing')}
            </button>
          )}
        </td>
        <td className="deeds">
          <button
            type="button"
            className="text-button"
            aria-label={`Copy ${format}`}
            onClick={() => void copy()}
          >
            {isCopied ? 'Copied' : 'Copy'}
          </button>
          <a href={address} download={format} aria-label={`Download ${format}`}>
            Download
          </a>
        </td>
      </tr>
      {problem !== null && (
        <tr>
          <td colSpan={4}>
            <Notice>{problem}</Notice>
          </td>
        </tr>
      )}
      {showsUnsaid && (
        <tr className="unsaid-list">
          <td colSpan={4}>
            <ul aria-label={`What ${format} cannot say`}>
              {cannotSay.map((sentence) => (
                <li key={sentence}>{sentence}</li>
              ))}
            </ul>
          </td>
        </tr>
      )}
    </tbody>
  );
}
