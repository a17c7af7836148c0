import { documentable, PROBLEMS, usualWords, type Contract, type ProblemCode } from '@isomeros/core/contract';
import { Input } from 'antd';
import { useMemo, useState } from 'react';
import { TextField } from '../app/parts/TextField.js';
import { useAppSelector } from '../app/store.js';
import { useSaid } from './useSaid.js';
import { WrongText } from './WrongText.js';

/** What kinds of problems are called, and what errors say. */
export function ErrorWords({ contract }: { readonly contract: Contract }): React.JSX.Element {
  return (
    <>
      <Problems contract={contract} />
      <Constraints contract={contract} />
    </>
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
      <WrongText text={wrong} />
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
        <ConstraintRow
          key={subject}
          contract={contract}
          subject={subject}
          name={name}
          usual={model === null ? undefined : usualWords(model).get(subject)}
        />
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
  usual,
}: {
  readonly contract: Contract;
  readonly subject: string;
  readonly name: string;
  /** What the model says of it. */
  readonly usual: string | undefined;
}): React.JSX.Element {
  const { said, say, wrong } = useSaid(contract, 'constraint', subject);
  return (
    <div className="said-row constraint-row">
      <code className="quiet">{name}</code>
      <TextField
        borderless
        label={`What an error says of ${name}`}
        placeholder={usual ?? 'As derived'}
        value={said.message ?? ''}
        onCommit={(text) => say('message', text)}
      />
      <WrongText text={wrong} />
    </div>
  );
}
