import type { RecordCell, SeedPreview, SeedPreviewType } from '@isomeros/core/records';
import type { Shortfall } from '@isomeros/core/seeding';
import { useState } from 'react';
import { amount } from '../app/parts/amount.js';
import { keyText, valueText } from './RecordCellView.js';

/** How many records there would be, and the first of the type that is chosen. */
export function SeedPreviewView({
  preview: { types, shortfalls },
}: {
  readonly preview: SeedPreview;
}): React.JSX.Element {
  const [chosen, setChosen] = useState<string | null>(null);
  const shown = types.find(({ name }) => name === chosen) ?? types.find(({ records }) => records > 0);
  const all = types.reduce((sum, { records }) => sum + records, 0);
  return (
    <section className="seed-preview" aria-label="Preview of the seed">
      <p role="status">
        Would give {amount(all, 'record')}:{' '}
        {types.map(({ name, records }, place) => (
          <span key={name}>
            {place > 0 && ', '}
            <button
              type="button"
              className="text-button"
              aria-pressed={name === shown?.name}
              onClick={() => setChosen(name)}
            >
              {name}
            </button>{' '}
            <span className="strong">{records}</span>
          </span>
        ))}
      </p>
      {shortfalls.map((shortfall) => (
        <p key={shortfall.entity} className="shortfall">
          {shortfallText(shortfall)}
        </p>
      ))}
      {shown !== undefined && shown.records > 0 && <FirstRecords of={shown} />}
    </section>
  );
}

function FirstRecords({
  of: { name, records, columns, first },
}: {
  readonly of: SeedPreviewType;
}): React.JSX.Element {
  return (
    <div className="seed-records-table">
      <table className="record-types">
        <caption>
          {first.length < records ? `The first ${first.length} of ${records}: ${name}` : name}
        </caption>
        <thead>
          <tr>
            {columns.map((column) => (
              <th key={column}>{column}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {first.map(({ number, cells }) => (
            <tr key={number}>
              {cells.map((cell, place) => (
                <td key={columns[place]} className="mono">
                  {previewText(cell)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function previewText(cell: RecordCell): string {
  switch (cell.kind) {
    case 'secret':
      return 'set, never returned';
    case 'record':
      return `${keyText(cell.to.key)} ${cell.to.hint}`.trimEnd();
    case 'value':
      return valueText(cell.value);
  }
}

/** Why there are fewer records than wanted. */
export const shortfallText = ({ entity, wanted, made, why }: Shortfall): string =>
  `${entity}: ${made} of ${wanted}. ${why}`;
