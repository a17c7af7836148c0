import { Button, Checkbox, Input, InputNumber } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { api, ApiError } from '../app/api/client.js';
import type { LiveSchemaAddress } from '@isomeros/api';
import type { SourceText } from './sources.js';
import { Notice } from '../app/parts/Notice.js';

interface Props {
  readonly isReading: boolean;
  readonly onRead: (source: SourceText) => void;
}

const START: LiveSchemaAddress = {
  host: '127.0.0.1',
  port: 3306,
  user: '',
  password: '',
  schema: '',
  remote: false,
};

const STATEMENTS = `SET SESSION TRANSACTION READ ONLY
SET SESSION max_statement_time = 20
SELECT TABLE_NAME, TABLE_TYPE
  FROM information_schema.TABLES
  WHERE TABLE_SCHEMA = …
SHOW CREATE TABLE …  for each table`;

/** Asks a MariaDB for the declarations of one schema. The password is sent once and kept nowhere. */
export function LiveSchemaForm({ isReading, onRead }: Props): React.JSX.Element {
  const [address, setAddress] = useState(START);
  const [problem, setProblem] = useState<string | null>(null);
  const [needsConfirming, setNeedsConfirming] = useState(false);
  const asking = useRef<AbortController | null>(null);
  const [isAsking, setIsAsking] = useState(false);
  useEffect(() => () => asking.current?.abort(), []);
  const ask = async (): Promise<void> => {
    const controller = new AbortController();
    asking.current = controller;
    setProblem(null);
    setIsAsking(true);
    try {
      const { ddl } = await api.readLiveSchema(address, controller.signal);
      onRead({ kind: 'sql', text: ddl, name: address.schema });
    } catch (error) {
      if (error instanceof DOMException && error.name === 'AbortError') return;
      if (!(error instanceof ApiError)) throw error;
      setProblem(error.problem.detail);
      setNeedsConfirming(error.problem.errors?.some(({ code }) => code === 'not-confirmed') === true);
    } finally {
      setIsAsking(false);
    }
  };
  const isReady = address.host !== '' && address.user !== '' && address.schema !== '';
  return (
    <form
      className="live-schema"
      onSubmit={(event) => {
        event.preventDefault();
        if (isReady && !isAsking) void ask();
      }}
    >
      <Fields address={address} onChange={(change) => setAddress({ ...address, ...change })} />
      {(needsConfirming || address.remote === true) && (
        <Checkbox
          checked={address.remote === true}
          onChange={({ target }) => setAddress({ ...address, remote: target.checked })}
        >
          The password may travel to {address.host}
        </Checkbox>
      )}
      <aside>
        <div className="quiet">All that is asked of it</div>
        <pre>{STATEMENTS}</pre>
      </aside>
      <div className="acts">
        <Button type="primary" htmlType="submit" disabled={!isReady || isAsking || isReading}>
          {isAsking ? 'Asking the database' : 'Read it'}
        </Button>
        {isAsking && <Button onClick={() => asking.current?.abort()}>Cancel</Button>}
        <span className="quiet">The password is sent once and kept nowhere.</span>
      </div>
      {problem !== null && <Notice>{problem}</Notice>}
    </form>
  );
}

interface FieldsProps {
  readonly address: LiveSchemaAddress;
  readonly onChange: (change: Partial<LiveSchemaAddress>) => void;
}

function Fields({ address, onChange }: FieldsProps): React.JSX.Element {
  return (
    <>
      <label htmlFor="live-host">host</label>
      <Input
        id="live-host"
        className="mono"
        value={address.host}
        onChange={({ target }) => onChange({ host: target.value.trim(), remote: false })}
      />
      <label htmlFor="live-port">port</label>
      <InputNumber
        id="live-port"
        className="mono"
        min={1}
        max={65_535}
        value={address.port}
        onChange={(port) => onChange({ port: port ?? START.port })}
      />
      <label htmlFor="live-user">user</label>
      <Input
        id="live-user"
        className="mono"
        autoComplete="off"
        value={address.user}
        onChange={({ target }) => onChange({ user: target.value })}
      />
      <label htmlFor="live-password">password</label>
      <Input.Password
        id="live-password"
        className="mono"
        autoComplete="off"
        visibilityToggle={false}
        value={address.password}
        onChange={({ target }) => onChange({ password: target.value })}
      />
      <label htmlFor="live-schema">schema</label>
      <Input
        id="live-schema"
        className="mono"
        value={address.schema}
        onChange={({ target }) => onChange({ schema: target.value })}
      />
    </>
  );
}
