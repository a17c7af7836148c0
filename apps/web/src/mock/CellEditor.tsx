import { skipToken } from '@reduxjs/toolkit/query';
import type { RecordColumn } from '@isomeros/core/records';
import { isScalarType, type Attribute, type Model } from '@isomeros/core/model';
import { recordTypesOf } from '@isomeros/core/transfer';
import { useEffect, useId, useRef, useState, type KeyboardEvent } from 'react';
import { useAppSelector } from '../app/store.js';
import { isRole } from './columnLayout.js';
import { keyText } from './RecordCellView.js';
import type { EditWay } from './recordEditsSlice.js';
import { useReadRecordTableQuery } from './recordsApi.js';

/** Where the typing goes on after a cell. */
export type NextCell = 'none' | 'below' | 'right' | 'left';

interface Props {
  /** The id of the mock. */
  readonly mock: string;
  readonly type: string;
  readonly way: EditWay;
  readonly column: RecordColumn;
  /** What is stored. */
  readonly before: string;
  readonly text: string;
  readonly onCommit: (text: string, next: NextCell) => void;
  readonly onCancel: () => void;
}

/** So many records are offered where one is to be named. */
const OFFERED = 12;

/** One cell while it is typed in. Enter and Tab take what is typed, Escape leaves it as it was. */
export function CellEditor(props: Props): React.JSX.Element {
  const { column, text, onCommit, onCancel } = props;
  const [typed, setTyped] = useState(text);
  const input = useRef<HTMLInputElement>(null);
  const isDone = useRef(false);
  const list = useId();
  useEffect(() => {
    input.current?.focus();
    input.current?.select();
  }, []);
  const offers = useOffers(props, typed);
  const end = (act: () => void): void => {
    // Leaving the field tells it a second time.
    if (isDone.current) return;
    isDone.current = true;
    act();
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    event.stopPropagation();
    const next: Readonly<Record<string, NextCell>> = {
      Enter: 'below',
      Tab: event.shiftKey ? 'left' : 'right',
    };
    const where = next[event.key];
    if (where === undefined && event.key !== 'Escape') return;
    event.preventDefault();
    end(where === undefined ? onCancel : () => onCommit(typed, where));
  };
  return (
    <>
      <input
        ref={input}
        className="cell-editor"
        aria-label={column.name}
        value={typed}
        list={offers.length > 0 ? list : undefined}
        placeholder={column.isSecret ? 'set anew' : 'unset'}
        spellCheck={false}
        onChange={({ target }) => setTyped(target.value)}
        onKeyDown={onKeyDown}
        onBlur={() => end(() => onCommit(typed, 'none'))}
      />
      {offers.length > 0 && (
        <datalist id={list}>
          {offers.map(({ text: offered, hint }) => (
            <option key={offered} value={offered}>
              {hint}
            </option>
          ))}
        </datalist>
      )}
    </>
  );
}

interface Offer {
  readonly text: string;
  readonly hint: string;
}

/** What may stand in a cell: the options of a choice, or the keys of records that are there. */
function useOffers({ mock, type, way, column, before }: Props, typed: string): readonly Offer[] {
  const model = useAppSelector((state) => state.derived.reading?.model ?? null);
  const { data } = useReadRecordTableQuery(
    isRole(column)
      ? { mock, type: column.type, find: typed, sort: '', offset: 0, limit: OFFERED }
      : skipToken,
  );
  if (isRole(column))
    return (data?.rows ?? []).map(({ link }) => ({ text: keyText(link.key), hint: link.hint }));
  return model === null
    ? []
    : optionsOf(model, type, column.name, way === 'contract' ? before : '').map((text) => ({
        text,
        hint: '',
      }));
}

/** `state`: where a life cycle leads on from; empty where it does not matter. */
function optionsOf(model: Model, type: string, column: string, state: string): readonly string[] {
  const attribute: Attribute | undefined = recordTypesOf(model)
    .get(type)
    ?.attributes.find(({ name }) => name === column);
  if (attribute === undefined || !isScalarType(attribute.type)) return [];
  if (attribute.type.kind === 'boolean') return ['true', 'false'];
  if (attribute.type.kind !== 'choice') return [];
  const leading = attribute.lifeCycle?.filter(({ from }) => state === '' || from.includes(state));
  return leading?.map(({ to }) => to) ?? attribute.type.options;
}
