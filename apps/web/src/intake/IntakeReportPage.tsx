import { Button, Input } from 'antd';
import { useMemo, useState } from 'react';
import { IntakeCounts } from './IntakeCounts.js';
import { IntakeQuestions } from './IntakeQuestions.js';
import { LeftOutList } from './LeftOutList.js';
import { reportRows } from './reportRows.js';
import { SourcePane } from './SourcePane.js';
import { SOURCES } from './sources.js';
import { UnderstoodPane } from './UnderstoodPane.js';
import type { Reading } from './useIntake.js';
import { amount } from '../app/parts/amount.js';
import { Explained } from '../app/help/Explained.js';

interface Props {
  readonly reading: Extract<Reading, { kind: 'read' }>;
  readonly name: string;
  readonly problem: string | null;
  readonly onName: (name: string) => void;
  readonly onChoose: (questions: readonly number[], option: number) => void;
  /** What one record is. */
  readonly onRecord: (record: string) => void;
  /** Whether mocks are to begin with the records of the source. */
  readonly seeds: boolean;
  readonly onSeeds: (seeds: boolean) => void;
  /** The share that is done while it is kept; `null` while it is not. */
  readonly keptShare: number | null;
  readonly onCancel: () => void;
  readonly onKeep: () => void;
  readonly onLeave: () => void;
}

/** Source and model side by side: each line of one with what it became, or why it became nothing. */
export function IntakeReportPage(props: Props): React.JSX.Element {
  const { reading, name, problem, onName, onChoose, onRecord, onKeep, onLeave } = props;
  const { seeds, onSeeds, keptShare, onCancel } = props;
  const { source, read, chosen } = reading;
  const { intake, figures } = read;
  const rows = useMemo(() => reportRows(source.text, intake), [source, intake]);
  const [line, setLine] = useState<number | null>(null);
  const [statement, setStatement] = useState<string | null>(null);
  const [typed, setTyped] = useState('');
  const showSource = (from: number): void => setLine(from);
  const values = intake.model.declarations.filter(({ kind }) => kind === 'value').length;
  return (
    <div className="intake-report">
      <div className="intake-line">
        <Figure name="Given">
          <code>{source.name === '' ? 'pasted' : source.name}</code>, {SOURCES[source.kind].title}
        </Figure>
        <Figure name="Read">{amount(rows.source.length, 'line')}</Figure>
        <Figure name="Understood">
          {amount(figures?.entities ?? 0, 'entity')}, {amount(values, 'value')},{' '}
          {amount(figures?.relationships ?? 0, 'relationship')}
        </Figure>
        <Figure name="Assumed">
          <b>{intake.asked.length}</b> asked, <b>{intake.assumed.length}</b> told
        </Figure>
        <Figure name="Left out">
          <b>{intake.leftOut.length}</b>, each with why
        </Figure>
        <span className="end">
          {problem !== null && (
            <span className="wrong" role="alert">
              {problem}
            </span>
          )}
          <Input
            aria-label="Name of the design"
            placeholder="Untitled design"
            style={{ width: 176 }}
            maxLength={120}
            value={name}
            onChange={({ target }) => onName(target.value)}
          />
          <Explained by="designs.keep">
            <Button type="primary" disabled={keptShare !== null} onClick={onKeep}>
              {keptShare === null ? 'Keep as a design' : `Keeping, ${Math.round(keptShare * 100)} %`}
            </Button>
          </Explained>
          {keptShare === null ? (
            <Button onClick={onLeave}>Discard</Button>
          ) : (
            <Button onClick={onCancel}>Cancel</Button>
          )}
        </span>
      </div>
      <IntakeCounts
        counts={intake.counts}
        records={intake.records}
        seeds={seeds}
        onSeeds={onSeeds}
        typed={typed}
        onType={setTyped}
      />
      <SourcePane rows={rows.source} line={line} onLine={setLine} />
      <UnderstoodPane
        rows={rows.understood}
        typed={typed}
        selected={statement}
        onSelect={(row) => {
          setStatement(row.key);
          if (row.from !== null) showSource(row.from.line);
        }}
      />
      <LeftOutList items={intake.leftOut} typed={typed} onLine={showSource} />
      <IntakeQuestions
        questions={intake.asked}
        told={intake.assumed}
        typed={typed}
        chosen={chosen}
        onChoose={onChoose}
        onRecord={onRecord}
        onLine={showSource}
      />
    </div>
  );
}

function Figure({
  name,
  children,
}: {
  readonly name: string;
  readonly children: React.ReactNode;
}): React.JSX.Element {
  return (
    <div className="figure">
      <div className="quiet">{name}</div>
      <div>{children}</div>
    </div>
  );
}
