import { findArrangement, saidOfKind, WHOLE_API, type SaidOf } from '@isomeros/core/arrangement';
import {
  documentable,
  isOwnTag,
  PROBLEMS,
  type Contract,
  type ProblemCode,
  type Tag,
} from '@isomeros/core/contract';
import { Button, Input } from 'antd';
import { useMemo, useState } from 'react';
import { CommonMarkField } from '../app/parts/CommonMarkField.js';
import { TextField } from '../app/parts/TextField.js';
import { useAppSelector } from '../app/store.js';
import { arrangementName } from '../design/viewSlice.js';
import { tallyOf } from './sheetRows.js';
import { useSaid } from './useSaid.js';

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
        <Servers contract={contract} />
        <Tags contract={contract} {...texts} />
        <Problems contract={contract} />
        <Constraints contract={contract} />
      </div>
    </article>
  );
}

interface TextsProps {
  readonly contract: Contract;
  readonly operations: ReadonlySet<string>;
  readonly onOperation: (operation: string) => void;
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
      <Wrong text={wrong} />
    </section>
  );
}

function Wrong({ text }: { readonly text: string | null }): React.JSX.Element | null {
  return text === null ? null : (
    <p className="wrong" role="alert">
      {text}
    </p>
  );
}

function Servers({ contract }: { readonly contract: Contract }): React.JSX.Element {
  const names = useAppSelector((state) => {
    const own = findArrangement(state.document.choices, arrangementName(state));
    return Object.keys(saidOfKind(own?.documentation ?? {}, 'server')).join('\n');
  });
  const [added, setAdded] = useState('');
  const shown = names === '' ? [] : names.split('\n');
  const isNew = added.trim() !== '' && !shown.includes(added.trim());
  return (
    <section aria-label="Where it is served">
      <header className="panel-head">
        <h3>Where it is served</h3>
        <span className="quiet">besides where a document is; parts in braces are variables</span>
      </header>
      {[...shown, ...(isNew ? [added.trim()] : [])].map((name) => (
        <Server key={name} contract={contract} name={name} />
      ))}
      <p className="add-line">
        <Input
          size="small"
          aria-label="Name of another server"
          placeholder="Add one by its name: production"
          style={{ width: 230 }}
          value={added}
          onChange={({ target }) => setAdded(target.value.replace(/\n/g, ' '))}
        />
      </p>
    </section>
  );
}

const SERVER_FIELDS = [
  { field: 'url', title: 'address', placeholder: 'https://{region}.api.example/v1' },
  { field: 'variables', title: 'variables', placeholder: 'region: eu, us' },
  { field: 'description', title: 'what for', placeholder: 'Where customers are' },
] as const;

function Server({
  contract,
  name,
}: {
  readonly contract: Contract;
  readonly name: string;
}): React.JSX.Element {
  const { said, say, wrong } = useSaid(contract, 'server', name);
  return (
    <div className="said-row">
      <span className="strong">{name}</span>
      {SERVER_FIELDS.map(({ field, title, placeholder }) => (
        <TextField
          key={field}
          mono={field !== 'description'}
          label={`${title} of ${name}`}
          placeholder={placeholder}
          value={said[field] ?? ''}
          onCommit={(text) => say(field, text)}
        />
      ))}
      <Wrong text={wrong} />
    </div>
  );
}

function Tags({ contract, operations, onOperation }: TextsProps): React.JSX.Element {
  const { tags } = contract.documentation;
  const { say } = useSaid(contract, 'api', WHOLE_API);
  const move = (from: number, to: number): void => {
    const ids = tags.map(({ id }) => id);
    const [moved] = ids.splice(from, 1);
    if (moved === undefined) return;
    ids.splice(to, 0, moved);
    say('tagOrder', ids.join(', '));
  };
  return (
    <section aria-label="Tags">
      <header className="panel-head">
        <h3>Tags</h3>
        <span className="quiet">in their order; two of one name are one</span>
      </header>
      {tags.map((tag, index) => (
        <TagRow
          key={tag.id}
          contract={contract}
          tag={tag}
          operations={operations}
          onOperation={onOperation}
          onUp={index === 0 ? null : () => move(index, index - 1)}
          onDown={index === tags.length - 1 ? null : () => move(index, index + 1)}
        />
      ))}
    </section>
  );
}

interface TagProps extends TextsProps {
  readonly tag: Tag;
  readonly onUp: (() => void) | null;
  readonly onDown: (() => void) | null;
}

function TagRow({ contract, tag, operations, onOperation, onUp, onDown }: TagProps): React.JSX.Element {
  const { said, say, wrong } = useSaid(contract, 'tag', tag.id);
  const { documented, undocumented, unpublished } = tallyOf(
    contract.operations.filter(({ tags }) => tags.includes(tag.id)),
  );
  return (
    <div className="said-row tag-row">
      <span className="order">
        {[
          { mark: '↑', words: 'Earlier', onPress: onUp },
          { mark: '↓', words: 'Later', onPress: onDown },
        ].map(({ mark, words, onPress }) => (
          <Button
            key={mark}
            size="small"
            type="text"
            aria-label={`${words}: ${tag.title}`}
            disabled={onPress === null}
            onClick={() => onPress?.()}
          >
            {mark}
          </Button>
        ))}
      </span>
      <TextField
        label={`Name of the tag ${tag.title}`}
        value={tag.title}
        onCommit={(text) => say('title', text)}
      />
      <CommonMarkField
        label={`Description of the tag ${tag.title}`}
        placeholder="Describe it"
        value={said.description ?? ''}
        operations={operations}
        onOperation={onOperation}
        onCommit={(text) => say('description', text)}
      />
      <span className="quiet">
        {documented + undocumented + unpublished} operations{isOwnTag(tag.id) ? ', of your own' : ''}
      </span>
      <Wrong text={wrong} />
    </div>
  );
}

function Problems({ contract }: { readonly contract: Contract }): React.JSX.Element {
  return (
    <section aria-label="Kinds of problems">
      <header className="panel-head">
        <h3>What errors are called</h3>
        <span className="quiet">title and page of each kind of problem (RFC 9457)</span>
      </header>
      {(Object.keys(PROBLEMS) as ProblemCode[]).map((code) => (
        <ProblemRow key={code} contract={contract} code={code} />
      ))}
    </section>
  );
}

function ProblemRow({
  contract,
  code,
}: {
  readonly contract: Contract;
  readonly code: ProblemCode;
}): React.JSX.Element {
  const { said, say, wrong } = useSaid(contract, 'problem', code);
  const { title, about } = PROBLEMS[code];
  return (
    <div className="said-row problem-row">
      <code className="quiet">{code}</code>
      <TextField
        borderless
        label={`Title of ${code}`}
        placeholder={title}
        value={said.title ?? ''}
        onCommit={(text) => say('title', text)}
      />
      <TextField
        wraps
        borderless
        label={`What ${code} tells`}
        placeholder={about}
        value={said.description ?? ''}
        onCommit={(text) => say('description', text)}
      />
      <Wrong text={wrong} />
    </div>
  );
}

const MOST_CONSTRAINTS = 40;

/** The words of what does not hold; of many constraints those that are found by typing. */
function Constraints({ contract }: { readonly contract: Contract }): React.JSX.Element {
  const model = useAppSelector((state) => state.derived.reading?.model ?? null);
  const [typed, setTyped] = useState('');
  const all = useMemo(
    () => (model === null ? [] : [...documentable('constraint', contract, model)]),
    [contract, model],
  );
  const notes = contract.documentation.notes.constraint;
  const wanted = typed.trim().toLowerCase();
  const found = all
    .filter(([, name]) => name.toLowerCase().includes(wanted))
    .sort(([a], [b]) => Number(Object.hasOwn(notes, b)) - Number(Object.hasOwn(notes, a)));
  return (
    <section aria-label="Constraints">
      <header className="panel-head">
        <h3>What errors say</h3>
        <span className="quiet">where a bound, a uniqueness or a condition does not hold</span>
        <span className="end">
          <Input
            size="small"
            aria-label="Find a constraint"
            placeholder={`Find one of ${all.length}`}
            style={{ width: 150 }}
            value={typed}
            onChange={({ target }) => setTyped(target.value)}
          />
        </span>
      </header>
      {found.slice(0, MOST_CONSTRAINTS).map(([subject, name]) => (
        <ConstraintRow key={subject} contract={contract} subject={subject} name={name} />
      ))}
      {found.length > MOST_CONSTRAINTS && (
        <p className="quiet aside">{found.length - MOST_CONSTRAINTS} more; type to find them.</p>
      )}
    </section>
  );
}

function ConstraintRow({
  contract,
  subject,
  name,
}: {
  readonly contract: Contract;
  readonly subject: string;
  readonly name: string;
}): React.JSX.Element {
  const { said, say, wrong } = useSaid(contract, 'constraint', subject);
  return (
    <div className="said-row constraint-row">
      <code className="quiet">{name}</code>
      <TextField
        borderless
        label={`What an error says of ${name}`}
        placeholder="As derived"
        value={said.message ?? ''}
        onCommit={(text) => say('message', text)}
      />
      <Wrong text={wrong} />
    </div>
  );
}
