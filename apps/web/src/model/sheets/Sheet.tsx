import { isBlock, declarationOf } from './edits.js';
import { useEffect, useState } from 'react';
import { useAppSelector } from '../../app/store.js';
import { BlockSheet } from './BlockSheet.js';
import { RelationshipSheet } from './RelationshipSheet.js';
import { useEdits } from './useEdits.js';
import './sheets.css';
import { Notice } from '../../app/parts/Notice.js';

interface Props {
  /** The identity of what is selected. */
  readonly id: string;
  readonly onClose: () => void;
  readonly onSelect: (id: string) => void;
}

/** The sheet of an entity, a value or a relationship: everything the notation says of it, without the notation. */
export function Sheet({ id, onClose, onSelect }: Props): React.JSX.Element | null {
  const model = useAppSelector((state) => state.derived.reading?.model ?? null);
  const edits = useEdits();
  const [attribute, setAttribute] = useState<string | null>(null);
  useEffect(() => {
    setAttribute(null);
  }, [id]);
  const declaration = model === null ? undefined : declarationOf(model, id);
  if (model === null || declaration === undefined) return null;
  return (
    <section
      className="sheet"
      aria-label="Sheet"
      onKeyDown={(event) => {
        if (event.key === 'Escape') onClose();
        event.stopPropagation();
      }}
      onPointerDown={(event) => event.stopPropagation()}
    >
      {isBlock(declaration) ? (
        <BlockSheet
          model={model}
          block={declaration}
          edits={edits}
          open={attribute}
          onOpen={setAttribute}
          onSelect={onSelect}
          onClose={onClose}
        />
      ) : (
        <RelationshipSheet model={model} relationship={declaration} edits={edits} onClose={onClose} />
      )}
      {edits.problem !== null && <Notice>{edits.problem}</Notice>}
    </section>
  );
}
