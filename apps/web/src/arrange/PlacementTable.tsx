import { findArrangement, withEdit } from '@isomeros/core/arrangement';
import { Select } from 'antd';
import { memo, useCallback, useMemo } from 'react';
import { RowList } from '../app/parts/RowList.js';
import { useAppSelector } from '../app/store.js';
import { useChoose } from '../design/useChoose.js';
import { OriginMark } from './OriginMark.js';
import { placementRows, type PlacementOption, type PlacementRow } from './placementRows.js';
import { arrangementName } from '../design/viewSlice.js';

const NOWHERE = {};

interface Props {
  /** The identity of the statement that the chosen path comes from. */
  readonly selected: string | null;
  readonly onSelect: (statement: string) => void;
}

/** Where each statement of the model stands, with its other places one click away. */
export function PlacementTable({ selected, onSelect }: Props): React.JSX.Element {
  const model = useAppSelector((state) => state.derived.reading?.model ?? null);
  const choices = useAppSelector((state) => state.document.choices);
  const arrangement = useAppSelector(arrangementName);
  const decide = useChoose();
  const placements = findArrangement(choices, arrangement)?.placements ?? NOWHERE;
  const rows = useMemo(() => (model === null ? [] : placementRows(model, placements)), [model, placements]);
  const choose = useCallback(
    ({ placings }: PlacementOption): void => {
      decide((choices, name) =>
        placings.reduce(
          (made, { of: kind, subject, place }) =>
            withEdit(made, name, 'placements', { kind, subject, place }),
          choices,
        ),
      );
    },
    [decide],
  );
  return (
    <section className="panel" aria-label="Placement">
      <header className="panel-head">
        <h2>Placement</h2>
        <span className="end quiet">where each statement is placed</span>
      </header>
      <div className="panel-body placements">
        <RowList
          role="grid"
          label="Placements"
          rows={rows}
          rowKey={({ id }) => id}
          rowHeight={22}
          selected={selected}
          onSelect={({ id }) => onSelect(id)}
          rowClass={({ kind }) => kind}
        >
          {(row) =>
            row.kind === 'group' ? (
              <>
                <span role="gridcell">{row.label}</span>
                <span role="gridcell" className="end quiet">
                  {row.about}
                </span>
              </>
            ) : (
              <PlacementCells row={row} onChoose={choose} />
            )
          }
        </RowList>
      </div>
    </section>
  );
}

interface CellsProps {
  readonly row: PlacementRow;
  readonly onChoose: (option: PlacementOption) => void;
}

/** Drawn again only where its own row changes. */
const PlacementCells = memo(function PlacementCells({ row, onChoose }: CellsProps): React.JSX.Element {
  const [usual] = row.options;
  const byKey = new Map(row.options.map((option) => [option.key, option]));
  return (
    <>
      <span role="gridcell" className="what" title={row.label}>
        {row.label}
      </span>
      <span role="gridcell">
        <Select
          aria-label={`Place of ${row.label}`}
          variant="borderless"
          className={row.level === 'default' ? '' : 'set-here'}
          popupMatchSelectWidth={false}
          value={row.value}
          options={row.options.map(({ key, label, means }) => ({ value: key, label, means }))}
          optionRender={({ data }) => (
            <span className="place-option">
              <span className="strong">{data.label}</span> <span className="quiet">{data.means}</span>
            </span>
          )}
          onChange={(key) => {
            const option = byKey.get(key);
            if (option !== undefined) onChoose(option);
          }}
        />
      </span>
      <span role="gridcell">
        <OriginMark
          title={`the place of ${row.label}`}
          level={row.level}
          onReset={row.level === 'default' || usual === undefined ? null : () => onChoose(usual)}
        />
      </span>
    </>
  );
});
