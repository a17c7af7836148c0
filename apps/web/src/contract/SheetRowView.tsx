import { successStatus, type Method, type Operation, type Severity } from '@isomeros/core/contract';
import { FindingMark } from '../findings/FindingMark.js';
import { EffectMark } from '../app/parts/EffectMark.js';
import { DocumentedMark, documentedState, type DocumentedState } from './DocumentedMark.js';
import { tallyOf, type SheetGroup, type SheetPath, type SheetRow } from './sheetRows.js';

/** Pixels that the column of a method takes. */
export const METHOD_WIDTHS: Readonly<Record<Method, number>> = {
  GET: 57,
  POST: 57,
  PUT: 78,
  PATCH: 57,
  DELETE: 62,
};

interface Props {
  readonly row: SheetRow;
  /** Of the worst that is found at the path; `null` where nothing is. */
  readonly severity: Severity | null;
  /** Whole paths instead of tails, where the rows above are missing. */
  readonly flat: boolean;
  readonly isCurrent: boolean;
  readonly isFolded: boolean;
  readonly isFound: (operation: Operation) => boolean;
  /** The methods that have a column, and the columns as CSS writes them. */
  readonly methods: readonly Method[];
  readonly columns: string;
  readonly selected: Operation | undefined;
  readonly onSelect: (operation: Operation) => void;
  readonly onFold: () => void;
}

export function SheetRowView({ row, ...others }: Props): React.JSX.Element {
  return row.kind === 'group' ? <Group row={row} {...others} /> : <PathCells row={row} {...others} />;
}

const MOST_BARS = 24;

/** A group with how much of it is documented: a bar an operation, where there is room for them. */
function Group({
  row: { title, operations },
  isFolded,
  onFold,
}: Omit<Props, 'row'> & { readonly row: SheetGroup }): React.JSX.Element {
  const { documented, undocumented } = tallyOf(operations);
  const whole = documented + undocumented;
  return (
    <div className="sheet-row sheet-group" role="row">
      <span role="rowheader">
        <button type="button" className="plain-button" aria-expanded={!isFolded} onClick={onFold}>
          <span className="fold" aria-hidden="true">
            {isFolded ? '▸' : '▾'}
          </span>{' '}
          <span className="strong">{title}</span>
        </button>
      </span>
      <span role="gridcell" className="bars" aria-hidden="true">
        {operations.slice(0, MOST_BARS).map((operation) => (
          <i key={operation.id} className={documentedState(operation)} />
        ))}
      </span>
      <span role="gridcell" className="end quiet">
        {documented} of {whole}
      </span>
    </div>
  );
}

function PathCells({
  row,
  severity,
  flat,
  isCurrent,
  isFound,
  methods,
  columns,
  selected,
  onSelect,
}: Omit<Props, 'row'> & { readonly row: SheetPath }): React.JSX.Element {
  const { resource, operations, label, indent, isBranch } = row;
  const classes = ['sheet-row', isBranch && !flat ? 'group' : '', isCurrent ? 'current' : ''];
  return (
    <div className={classes.join(' ')} role="row" style={{ gridTemplateColumns: columns }}>
      <span
        role="rowheader"
        className="path mono"
        style={{ paddingLeft: flat ? 0 : indent * 10 }}
        title={resource.path}
      >
        {flat && resource.path !== '' ? resource.path : label}
        {resource.kind === 'entry' && <span className="quiet"> entry</span>}{' '}
        {severity !== null && <FindingMark severity={severity} />}
      </span>
      {methods.map((method) => {
        const operation = operations.find((candidate) => candidate.method === method);
        if (operation === undefined) return <span key={method} role="gridcell" />;
        const state = documentedState(operation);
        return (
          <span key={method} role="gridcell">
            <button
              type="button"
              tabIndex={-1}
              className={`sheet-cell ${operation.documentation?.deprecated == null ? '' : 'ends'} ${isFound(operation) ? '' : 'not-found'}`}
              aria-pressed={operation.id === selected?.id}
              aria-label={`${statuses(operation)} ${operation.id}, ${method} ${resource.path}${saidWords(operation, state)}`}
              title={operation.id + saidWords(operation, state)}
              onClick={() => onSelect(operation)}
            >
              <EffectMark effect={operation.effect} /> <span className="statuses">{statuses(operation)}</span>
              <DocumentedMark state={state} />
            </button>
          </span>
        );
      })}
    </div>
  );
}

const STATE_WORDS: Readonly<Record<DocumentedState, string>> = {
  documented: ', documented',
  undocumented: '',
  unpublished: ', in no published document',
};

function saidWords({ documentation }: Operation, state: DocumentedState): string {
  const since = documentation?.deprecated ?? null;
  return `${STATE_WORDS[state]}${since === null ? '' : `, deprecated from ${since}`}`;
}

function statuses(operation: Operation): string {
  // That a client may do without a body is the same everywhere, and told beside the operation.
  const usual = operation.responses.filter(({ status, code }) => status < 300 && code !== 'minimal');
  const good = [...new Set(usual.map(({ status }) => status))];
  return good.length === 0 ? String(successStatus(operation)) : good.join('/');
}
