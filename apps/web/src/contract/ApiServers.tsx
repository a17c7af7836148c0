import { findArrangement, saidOfKind } from '@isomeros/core/arrangement';
import type { Contract } from '@isomeros/core/contract';
import { Input } from 'antd';
import { useState } from 'react';
import { TextField } from '../app/parts/TextField.js';
import { useAppSelector } from '../app/store.js';
import { arrangementName } from '../design/viewSlice.js';
import { useSaid } from './useSaid.js';
import { WrongText } from './WrongText.js';

/** Where the API is served, by names of one's own. */
export function ApiServers({ contract }: { readonly contract: Contract }): React.JSX.Element {
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
      <WrongText text={wrong} />
    </div>
  );
}
