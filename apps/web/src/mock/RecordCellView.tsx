import type { RecordCell, RecordLink } from '@isomeros/core/records';
import type { Json } from '@isomeros/core/model';

/** A value as one line of text. */
export const valueText = (value: Json): string =>
  value === null ? '' : typeof value === 'string' ? value : JSON.stringify(value);

/** A key, or the keys that lead to a record one after the other. */
export const keyText = (key: Json): string =>
  Array.isArray(key) ? (key as readonly Json[]).map(valueText).join(' / ') : valueText(key);

interface Props {
  readonly cell: RecordCell;
  readonly onFollow: (to: RecordLink) => void;
}

/** What stands in one column of a record; another record can be followed. */
export function RecordCellView({ cell, onFollow }: Props): React.JSX.Element {
  switch (cell.kind) {
    case 'secret':
      return <span className="quiet">set, never returned</span>;
    case 'record':
      return <RecordLinkView to={cell.to} onFollow={onFollow} />;
    case 'value':
      return cell.value === null ? (
        <span className="quiet">unset</span>
      ) : (
        <span className="mono">{valueText(cell.value)}</span>
      );
  }
}

interface LinkProps {
  readonly to: RecordLink;
  readonly onFollow: (to: RecordLink) => void;
}

/** Another record, by its key and what people know it by. */
export function RecordLinkView({ to, onFollow }: LinkProps): React.JSX.Element {
  return (
    <button
      type="button"
      className="record-link"
      title={`${to.type} ${keyText(to.key)}`}
      onClick={(event) => {
        event.stopPropagation();
        onFollow(to);
      }}
    >
      <span className="mono key">{keyText(to.key)}</span> {to.hint}
    </button>
  );
}
