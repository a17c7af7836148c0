import { findArrangement, type OwnLink } from '@isomeros/core/arrangement';
import { findingKey, type Contract, type Finding, type Resource } from '@isomeros/core/contract';
import { completeLinkLine, printLinkLine, readLinkLine } from '@isomeros/core/derivation';
import type { Model } from '@isomeros/core/model';
import { Button } from 'antd';
import { useState } from 'react';
import { LineField } from '../app/parts/LineField.js';
import { useAppSelector } from '../app/store.js';
import { Explained } from '../app/help/Explained.js';
import { useDecide } from '../design/useDecide.js';
import { arrangementName } from '../design/viewSlice.js';
import { FindingRow } from '../findings/FindingRow.js';

interface Props {
  readonly model: Model;
  readonly contract: Contract;
  readonly resource: Resource;
  readonly onStatement: (line: number) => void;
}

const NONE: readonly OwnLink[] = [];
const NO_FINDINGS: readonly Finding[] = [];

/** The links of one's own that a path offers, a line each. */
export function OwnLinks({ model, contract, resource, onStatement }: Props): React.JSX.Element {
  const choices = useAppSelector((state) => state.document.choices);
  const arrangement = useAppSelector(arrangementName);
  const findings = useAppSelector((state) => state.derived.review?.findings ?? NO_FINDINGS);
  const decide = useDecide();
  const [isAdding, setAdding] = useState(false);
  const all = findArrangement(choices, arrangement)?.ownLinks ?? NONE;
  const own = all.filter((link) => link.resource === resource.id);
  const complete = (text: string): readonly string[] => completeLinkLine(model, contract, resource.id, text);
  /** What is wrong with a line; `null` where it was taken. */
  const take = (id: string, line: string): string | null => {
    const read = readLinkLine(model, contract, resource.id, line);
    if (!read.ok) return `${read.message} (column ${read.column})`;
    decide('ownLinks', { id, link: { id, resource: resource.id, ...read.link } });
    return null;
  };
  return (
    <div className="own-links" role="group" aria-label="Links of your own">
      <p className="own-links-head">
        <Explained by="arrange.ownLinks">
          <span>Links of your own</span>
        </Explained>
        <span className="end quiet">a line each</span>
      </p>
      {own.map((link) => (
        <OwnLinkRow
          key={link.id}
          label={`Line of ${link.relation}`}
          line={printLinkLine(model, contract, resource.id, link)}
          findings={findings.filter(({ about }) => about === link.id)}
          complete={complete}
          onTake={(line) => take(link.id, line)}
          onStatement={onStatement}
          onRemove={() => decide('ownLinks', { id: link.id, link: null })}
          remove={`Remove ${link.relation}`}
        />
      ))}
      {isAdding ? (
        <>
          <OwnLinkRow
            label="Line of the new link"
            line=""
            placeholder={exampleLine(resource)}
            findings={NO_FINDINGS}
            complete={complete}
            onTake={(line) => {
              const wrong = take(unusedId(all), line);
              if (wrong === null) setAdding(false);
              return wrong;
            }}
            onStatement={onStatement}
            onRemove={() => setAdding(false)}
            remove="Cancel"
          />
          <ul className="forms" aria-label="What a line can be">
            {formsFor(resource).map((form) => (
              <li key={form} className="mono">
                {form}
              </li>
            ))}
          </ul>
        </>
      ) : (
        <Button onClick={() => setAdding(true)}>Add a link</Button>
      )}
    </div>
  );
}

interface RowProps {
  readonly label: string;
  readonly line: string;
  readonly placeholder?: string;
  readonly findings: readonly Finding[];
  readonly remove: string;
  readonly complete: (text: string) => readonly string[];
  readonly onTake: (line: string) => string | null;
  readonly onRemove: () => void;
  readonly onStatement: (line: number) => void;
}

function OwnLinkRow(props: RowProps): React.JSX.Element {
  const { label, line, placeholder, findings, remove, complete, onTake, onRemove, onStatement } = props;
  const [wrong, setWrong] = useState<string | null>(null);
  const isNew = line === '';
  return (
    <div className="own-link">
      <LineField
        label={label}
        value={line}
        autoFocus={isNew}
        {...(placeholder === undefined ? {} : { placeholder })}
        complete={complete}
        onCommit={(text) => setWrong(onTake(text))}
      />
      <button type="button" className="text-button" aria-label={remove} onClick={onRemove}>
        {isNew ? 'Cancel' : 'Remove'}
      </button>
      {wrong !== null && (
        <p className="wrong" role="alert">
          {wrong}
        </p>
      )}
      {findings.length > 0 && (
        <ul className="questions" aria-label={`Findings about ${label}`}>
          {findings.map((finding) => (
            <FindingRow key={findingKey(finding)} finding={finding} onStatement={onStatement} />
          ))}
        </ul>
      )}
    </div>
  );
}

const isOfRecords = ({ kind }: Resource): boolean => kind === 'item' || kind === 'singleton';

const formsFor = (resource: Resource): readonly string[] =>
  isOfRecords(resource)
    ? [
        '… -> role.role',
        '… -> operation where … = self.…, sort …, size 5',
        '… -> "https://…/{attribute}"',
        '… when … = …',
      ]
    : ['… -> operation with … = …', '… -> operation where … = …, sort … desc, size 5', '… -> "https://…"'];

const exampleLine = (resource: Resource): string =>
  isOfRecords(resource) ? 'manual -> "https://…/{…}"' : 'latest -> list… sort … desc, size 5';

/** An id that no link has. */
function unusedId(all: readonly OwnLink[]): string {
  const taken = new Set(all.map(({ id }) => id));
  let number = all.length + 1;
  while (taken.has(`link-${number}`)) number++;
  return `link-${number}`;
}
