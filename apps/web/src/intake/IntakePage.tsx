import { useEffect, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { TopBar } from '../app/frame/TopBar.js';
import '../app/frame/frame.css';
import { StageNav, type StageLink } from '../app/frame/StageNav.js';
import { STAGE_DESCRIPTIONS } from '../app/frame/stageDescriptions.js';
import { SourceInput } from './SourceInput.js';
import { IntakeReportPage } from './IntakeReportPage.js';
import { takeSource } from './pendingSource.js';
import { designName, isSourceKind, type SourceKind, type SourceText } from './sources.js';
import { useIntake, type Reading } from './useIntake.js';
import { useKeep } from './useKeep.js';
import './intake.css';
import { amount } from '../app/parts/amount.js';

/** The name that was typed, else one made of that of the file. */
const nameFor = (source: SourceText, typed: string): string =>
  typed.trim() !== '' ? typed.trim() : designName(source.name);

const NAMELESS = 'Untitled design';

/** Reads what there is already as a model, and accounts for it before anything is kept. */
export function IntakePage(): React.JSX.Element {
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const asked = search.get('from');
  const kind: SourceKind = isSourceKind(asked) ? asked : 'sql';
  const [typed, setTyped] = useState('');
  const [named, setNamed] = useState('');
  const name = typed !== '' ? typed : named;
  const { reading, begin, choose, nameRecord, leave } = useIntake();
  const keeping = useKeep();
  const [seeds, setSeeds] = useState(true);
  const read = (source: SourceText): void => {
    const wanted = nameFor(source, typed);
    setNamed(wanted);
    begin(source, wanted || NAMELESS, wanted);
  };
  const [handedOver] = useState(takeSource);
  useEffect(() => {
    if (handedOver === null) return;
    const wanted = nameFor(handedOver, '');
    setNamed(wanted);
    begin(handedOver, wanted || NAMELESS, wanted);
  }, [handedOver, begin]);
  const keep = async ({ source, chosen, record }: Extract<Reading, { kind: 'read' }>): Promise<void> => {
    const { kind: format, text } = source;
    const design = await keeping.keep({
      name: name.trim() || NAMELESS,
      records: seeds,
      source: { format, text, answers: chosen, record },
    });
    if (design !== null) void navigate(`/designs/${design}/model`);
  };
  const isReport = reading.kind === 'read' && reading.read.intake.problem === null;
  return (
    <div className="frame">
      <TopBar
        title={isReport ? name || NAMELESS : 'Intake'}
        note={isReport ? 'as it would be; nothing is kept yet' : 'read, never changed; nothing is kept yet'}
        commands={() => []}
      />
      <StageNav stages={stagesOf(reading)} />
      <main>
        {reading.kind === 'read' && isReport ? (
          <IntakeReportPage
            reading={reading}
            name={name}
            problem={keeping.problem}
            onName={setTyped}
            onChoose={choose}
            onRecord={nameRecord}
            seeds={seeds}
            onSeeds={setSeeds}
            keptShare={keeping.done}
            onCancel={keeping.cancel}
            onKeep={() => void keep(reading)}
            onLeave={leave}
          />
        ) : (
          <SourceInput
            kind={kind}
            name={typed}
            reading={reading}
            onKind={(next) => {
              leave();
              setSearch({ from: next }, { replace: true });
            }}
            onName={setTyped}
            onRead={read}
            onCancel={leave}
          />
        )}
      </main>
    </div>
  );
}

/** What the design would amount to, on the stage line as always. */
function stagesOf(reading: Reading): readonly StageLink[] {
  if (reading.kind !== 'read' || reading.read.figures === null) return STAGE_DESCRIPTIONS;
  const { entities, relationships, assumptions, operations, findings } = reading.read.figures;
  const found = findings.error + findings.doubtful;
  return [
    {
      number: 1,
      name: 'Model',
      figure: `${amount(entities, 'entity')} · ${amount(relationships, 'relationship')}`,
      to: null,
    },
    {
      number: 2,
      name: 'Arrange',
      figure: `${amount(1, 'arrangement')} · ${amount(assumptions, 'assumption')}`,
      to: null,
    },
    {
      number: 3,
      name: 'Contract',
      figure: `${amount(operations, 'operation')} · ${amount(found, 'finding')}`,
      to: null,
    },
    { number: 4, name: 'Mock', figure: 'none until it is kept', to: null },
  ];
}
