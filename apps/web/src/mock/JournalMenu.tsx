import type { ExchangesQuery, Mock } from '@isomeros/api';
import { indexContract, type Contract } from '@isomeros/core/contract';
import { Button, Popconfirm, Popover, Select } from 'antd';
import { useState } from 'react';
import { api, refusalText } from '../app/api/client.js';
import { TextField } from '../app/parts/TextField.js';
import { ALL, asParameters, withPart, type LookedFor } from './exchangesQuery.js';
import { useClearExchangesMutation, useListMocksQuery } from './mocksApi.js';

interface Props {
  readonly mock: Mock;
  readonly contract: Contract | null;
  /** The clients that were seen. */
  readonly clients: readonly string[];
  /** What is looked for; `null` while exchanges are shown as they come. */
  readonly looked: LookedFor | null;
  readonly onLook: (looked: LookedFor | null) => void;
}

const STATUSES: readonly NonNullable<ExchangesQuery['status']>[] = ['1xx', '2xx', '3xx', '4xx', '5xx', 'cut'];

/** The journal as a whole: what is looked for in it, an archive of that, and clearing it. */
export function JournalMenu(props: Props): React.JSX.Element {
  const { mock, looked } = props;
  const [isOpen, setOpen] = useState(false);
  const { refetch } = useListMocksQuery(null);
  return (
    <Popover
      open={isOpen}
      onOpenChange={(opens) => {
        setOpen(opens);
        // How much is written is not told as it happens.
        if (opens) void refetch();
      }}
      trigger="click"
      placement="bottomRight"
      destroyOnHidden
      content={<Panel key={mock.id} {...props} />}
    >
      <Button size="small" aria-expanded={isOpen} type={looked === null ? 'default' : 'primary'}>
        Journal
      </Button>
    </Popover>
  );
}

function Panel({ mock, contract, clients, looked, onLook }: Props): React.JSX.Element {
  const shown = looked ?? ALL;
  const { operation, status, path, client } = shown.query;
  const look = (name: keyof ExchangesQuery, value: string | undefined): void => {
    onLook(withPart(shown, name, value ?? ''));
  };
  const operations = contract === null ? [] : [...indexContract(contract).operations.keys()];
  return (
    <div className="journal-menu" role="group" aria-label="Journal">
      <label>
        Operation
        <Select
          showSearch
          allowClear
          value={operation}
          placeholder="any"
          options={operations.map((id) => ({ value: id, label: id }))}
          onChange={(value: string | undefined) => look('operation', value)}
        />
      </label>
      <label>
        Status
        <Select
          allowClear
          value={status}
          placeholder="any"
          options={STATUSES.map((one) => ({ value: one, label: one === 'cut' ? 'connection cut' : one }))}
          onChange={(value: string | undefined) => look('status', value)}
        />
      </label>
      <label>
        Path with
        <TextField
          label="Path with"
          value={path ?? ''}
          placeholder="any part of it"
          mono
          onCommit={(value) => look('path', value)}
        />
      </label>
      <label>
        Client
        <Select
          showSearch
          allowClear
          value={client}
          placeholder="any"
          options={clients.map((one) => ({ value: one, label: one }))}
          onChange={(value: string | undefined) => look('client', value)}
        />
      </label>
      <Whole mock={mock} looked={looked} onLook={onLook} />
    </div>
  );
}

/** What can be done with the journal as a whole. */
function Whole({ mock, looked, onLook }: Pick<Props, 'mock' | 'looked' | 'onLook'>): React.JSX.Element {
  const [clear] = useClearExchangesMutation();
  const [failure, setFailure] = useState<string | null>(null);
  return (
    <>
      <p className="quiet">
        {sizeText(mock.journal.bytes)} in the database. The oldest go when it is full, pinned ones stay.
      </p>
      {mock.journal.dropped > 0 && (
        <p className="quiet">
          {mock.journal.dropped} came faster than they could be written since the server was started, and are
          not kept.
        </p>
      )}
      {failure !== null && (
        <p className="wrong" role="alert">
          {failure}
        </p>
      )}
      <div className="acts">
        <Button size="small" onClick={() => onLook(looked === null ? ALL : null)}>
          {looked === null ? 'All, page by page' : 'As they come'}
        </Button>
        <Button size="small" href={api.archiveAddress(mock.id, asParameters(looked ?? ALL))} download>
          Export as HAR
        </Button>
        <Popconfirm
          title="Clear the journal?"
          description="All exchanges go but those that are pinned."
          okText="Clear"
          cancelText="Keep"
          onConfirm={() => {
            clear(mock.id)
              .unwrap()
              .then(
                () => setFailure(null),
                (error: unknown) => setFailure(refusalText(error)),
              );
          }}
        >
          <Button size="small">Clear</Button>
        </Popconfirm>
      </div>
    </>
  );
}

const KIB = 1_024;

/** Bytes in words, rounded. */
export function sizeText(bytes: number): string {
  if (bytes < KIB) return `${bytes} B`;
  const kib = bytes / KIB;
  return kib < KIB ? `${Math.round(kib)} KiB` : `${(kib / KIB).toFixed(1)} MiB`;
}
