import { Button, Segmented } from 'antd';
import { useState } from 'react';
import { refusalText } from '../app/api/client.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { contractOf, type MockEndpoint } from './endpoints.js';
import { asRecordEdits, editsInWords } from './pendingEdits.js';
import {
  editsEnded,
  editsRefused,
  NO_EDITS,
  wayChosen,
  type EditWay,
  type PendingEdit,
} from './recordEditsSlice.js';
import { useWriteEditsMutation } from './recordsApi.js';

interface Props {
  /** Whose contract edits are written through. */
  readonly endpoint: MockEndpoint;
  /** Shows an edit that was refused. */
  readonly onShow: (edit: PendingEdit) => void;
}

const WAYS: readonly { readonly value: EditWay; readonly label: string; readonly title: string }[] = [
  {
    value: 'contract',
    label: 'through the contract',
    title: 'Written as exchanges, which appear in the journal',
  },
  {
    value: 'around',
    label: 'around it',
    title: 'Past operations that are left out, life cycles, fixed and read-only; never past the model',
  },
];

/** What was typed into the tables and is not written yet, and how it is written: all of it, or none. */
export function EditsFooter({ endpoint, onShow }: Props): React.JSX.Element | null {
  const { mock } = endpoint;
  const dispatch = useAppDispatch();
  const { edits, way } = useAppSelector(({ recordEdits }) => recordEdits.byMock[mock.id] ?? NO_EDITS);
  const model = useAppSelector((state) => state.derived.reading?.model ?? null);
  const [writeEdits, { isLoading }] = useWriteEditsMutation();
  const [failure, setFailure] = useState<string | null>(null);
  if (edits.length === 0) return null;
  const refused = edits.filter(({ problems }) => problems.length > 0);
  const [wrong] = refused;
  const write = async (): Promise<void> => {
    if (model === null) return;
    try {
      const body = { edits: asRecordEdits(model, edits), way, ...contractOf(endpoint) };
      const { written, problems } = await writeEdits({ mock: mock.id, body }).unwrap();
      if (written) dispatch(editsEnded(mock.id));
      else dispatch(editsRefused({ mock: mock.id, problems }));
      const first = edits[problems[0]?.edit ?? -1];
      if (first !== undefined) onShow(first);
      setFailure(null);
    } catch (error) {
      setFailure(refusalText(error));
    }
  };
  return (
    <section className={way === 'around' ? 'edits-footer around' : 'edits-footer'} aria-label="Edits">
      <span className="strong">{editsInWords(edits)}</span>
      {wrong !== undefined && (
        <button type="button" className="text-button wrong" onClick={() => onShow(wrong)}>
          {refused.length} refused
        </button>
      )}
      {failure !== null && (
        <span className="wrong" role="alert">
          {failure}
        </span>
      )}
      <span className="end">
        <Segmented
          size="small"
          aria-label="How edits are written"
          value={way}
          options={WAYS.map((one) => ({ ...one }))}
          onChange={(chosen) => dispatch(wayChosen({ mock: mock.id, way: chosen }))}
        />
      </span>
      <Button size="small" onClick={() => dispatch(editsEnded(mock.id))}>
        Discard
      </Button>
      <Button
        size="small"
        type="primary"
        loading={isLoading}
        disabled={model === null}
        onClick={() => void write()}
      >
        Write {edits.length}
      </Button>
    </section>
  );
}
