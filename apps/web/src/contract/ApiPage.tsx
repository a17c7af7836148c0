import { WHOLE_API, type SaidOf } from '@isomeros/core/arrangement';
import { useMemo } from 'react';
import { CommonMarkField } from '../app/parts/CommonMarkField.js';
import { TextField } from '../app/parts/TextField.js';
import type { Contract } from '@isomeros/core/contract';
import { ApiServers } from './ApiServers.js';
import { ApiTags } from './ApiTags.js';
import { ErrorWords } from './ErrorWords.js';
import type { TextsProps } from './textsProps.js';
import { useSaid } from './useSaid.js';
import { WrongText } from './WrongText.js';

interface Props {
  readonly contract: Contract;
  readonly onOperation: (operation: string) => void;
  /** Back to the operations. */
  readonly onClose: () => void;
}

/** What is said of the API as a whole: about it, where it is served, its tags, and what its errors say. */
export function ApiPage({ contract, onOperation, onClose }: Props): React.JSX.Element {
  const operations = useMemo(() => new Set(contract.operations.map(({ id }) => id)), [contract]);
  const texts = { operations, onOperation };
  return (
    <article className="operation-page api-page" aria-label="About the API">
      <header className="operation-head">
        <div className="title">
          <h2>About the API</h2>
          <span className="quiet">published with every document of it</span>
          <span className="end">
            <button type="button" className="text-button" onClick={onClose}>
              Back to the operations
            </button>
          </span>
        </div>
      </header>
      <div className="api-parts" tabIndex={0} role="group" aria-label="What is said of the API">
        <About contract={contract} {...texts} />
        <ApiServers contract={contract} />
        <ApiTags contract={contract} {...texts} />
        <ErrorWords contract={contract} />
      </div>
    </article>
  );
}

const ABOUT: readonly {
  readonly field: keyof SaidOf<'api'>;
  readonly title: string;
  readonly placeholder: string;
}[] = [
  { field: 'title', title: 'Title', placeholder: '' },
  { field: 'summary', title: 'Summary', placeholder: 'In one line' },
  { field: 'version', title: 'Version of the document', placeholder: '' },
  { field: 'contactName', title: 'Who is asked', placeholder: 'A team' },
  { field: 'contactEmail', title: 'by mail', placeholder: 'desk@example.net' },
  { field: 'contactUrl', title: 'or at', placeholder: 'https://…' },
  { field: 'licenseName', title: 'License', placeholder: 'MIT' },
  { field: 'externalUrl', title: 'More at', placeholder: 'https://…' },
  { field: 'externalText', title: 'which is called', placeholder: '' },
];

function About({ contract, operations, onOperation }: TextsProps): React.JSX.Element {
  const { said, say, wrong } = useSaid(contract, 'api', WHOLE_API);
  const shown = ABOUT.filter(({ field }) => field !== 'externalText' || said.externalUrl !== undefined);
  const usual: Partial<Record<keyof SaidOf<'api'>, string>> = {
    title: contract.title,
    version: contract.version,
  };
  return (
    <section aria-label="About it">
      <dl className="said-fields">
        {shown.map(({ field, title, placeholder }) => (
          <div key={field}>
            <dt className="quiet">{title}</dt>
            <dd>
              <TextField
                borderless
                label={title}
                placeholder={usual[field] ?? placeholder}
                value={said[field] ?? ''}
                onCommit={(text) => say(field, text)}
              />
            </dd>
          </div>
        ))}
        <div className="whole">
          <dt className="quiet">Description</dt>
          <dd>
            <CommonMarkField
              label="Description of the API"
              placeholder={contract.description ?? 'What it is for, in CommonMark'}
              value={said.description ?? ''}
              operations={operations}
              onOperation={onOperation}
              onCommit={(text) => say('description', text)}
            />
          </dd>
        </div>
      </dl>
      <p className="quiet aside">
        Terms of service, license and status page have their addresses among the settings of the arrangement.
      </p>
      <WrongText text={wrong} />
    </section>
  );
}
