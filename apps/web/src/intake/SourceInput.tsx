import { MAX_INTAKE_BYTES } from '@isomeros/core/intake';
import { Button, Input, Progress, Segmented } from 'antd';
import { useRef, useState, type DragEvent } from 'react';
import { LiveSchemaForm } from './LiveSchemaForm.js';
import { kindOfFile, SOURCE_KINDS, SOURCES, type SourceKind, type SourceText } from './sources.js';
import type { Reading } from './useIntake.js';
import { FileInput } from '../app/parts/FileInput.js';
import { Notice } from '../app/parts/Notice.js';

interface Props {
  readonly kind: SourceKind;
  readonly name: string;
  readonly reading: Reading;
  readonly onKind: (kind: SourceKind) => void;
  readonly onName: (name: string) => void;
  readonly onRead: (source: SourceText) => void;
  readonly onCancel: () => void;
}

/** Where the source is given: pasted, dropped, opened as a file, or fetched from a database. */
export function SourceInput(props: Props): React.JSX.Element {
  const { kind, name, reading, onKind, onName, onRead, onCancel } = props;
  const [text, setText] = useState('');
  const [file, setFile] = useState('');
  const opened = useRef<HTMLInputElement>(null);
  const bytes = new TextEncoder().encode(text).length;
  const tooLarge = bytes > MAX_INTAKE_BYTES;
  const open = async (chosen: File): Promise<void> => {
    const content = await chosen.text();
    const found = kindOfFile(chosen.name, content);
    setText(content);
    setFile(chosen.name);
    if (found !== 'design' && found !== 'notation' && kind !== found) onKind(found);
  };
  const drop = (event: DragEvent): void => {
    event.preventDefault();
    const [dropped] = event.dataTransfer.files;
    if (dropped !== undefined) void open(dropped);
  };
  const isReading = reading.kind === 'reading';
  return (
    <section className="panel give-source" aria-label="Source">
      <header className="panel-head">
        <Segmented<SourceKind>
          value={kind}
          onChange={onKind}
          options={SOURCE_KINDS.map((value) => ({ value, label: SOURCES[value].title }))}
        />
        <span className="quiet">{SOURCES[kind].about}</span>
        <span className="end">
          <Input
            aria-label="Name of the design"
            placeholder="Name of the design"
            style={{ width: 190 }}
            maxLength={120}
            value={name}
            onChange={({ target }) => onName(target.value)}
          />
          {kind !== 'live' && (
            <>
              <Button onClick={() => opened.current?.click()}>Open a file</Button>
              <Button
                type="primary"
                disabled={text.trim() === '' || tooLarge || isReading}
                onClick={() => onRead({ kind, text, name: file })}
              >
                Read it
              </Button>
            </>
          )}
        </span>
      </header>
      <FileInput ref={opened} label="A file to read" onFile={(chosen) => void open(chosen)} />
      <Notices reading={reading} tooLarge={tooLarge ? bytes : null} onCancel={onCancel} />
      {kind === 'live' ? (
        <LiveSchemaForm onRead={onRead} isReading={isReading} />
      ) : (
        <textarea
          aria-label={SOURCES[kind].title}
          className="intake-source"
          placeholder={SOURCES[kind].example}
          spellCheck={false}
          value={text}
          onChange={({ target }) => {
            setText(target.value);
            setFile('');
          }}
          onDragOver={(event) => event.preventDefault()}
          onDrop={drop}
        />
      )}
    </section>
  );
}

interface NoticesProps {
  readonly reading: Reading;
  /** Bytes of a source over the limit. */
  readonly tooLarge: number | null;
  readonly onCancel: () => void;
}

function Notices({ reading, tooLarge, onCancel }: NoticesProps): React.JSX.Element | null {
  if (tooLarge !== null)
    return (
      <Notice>
        The source has {tooLarge} bytes; the limit is {MAX_INTAKE_BYTES}.
      </Notice>
    );
  switch (reading.kind) {
    case 'none':
      return null;
    case 'reading':
      return (
        <Notice kind="known">
          <span>Reading</span>
          <Progress percent={Math.round(reading.done * 100)} style={{ width: 240 }} />
          <Button onClick={onCancel}>Cancel</Button>
        </Notice>
      );
    case 'failed':
      return <Notice>{reading.why}</Notice>;
    case 'read':
      return reading.read.intake.problem === null ? null : <Notice>{reading.read.intake.problem}</Notice>;
  }
}
