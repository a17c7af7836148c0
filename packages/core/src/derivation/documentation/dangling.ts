import { DOCUMENTED_KINDS, saidOfKind, type DocumentedKind } from '../../arrangement/index.js';
import { danglingOperations, withoutOperationLink, type OperationNaming } from '../../contract/index.js';
import { nearest } from '../../model/index.js';
import type { DerivationContext } from '../context.js';

/** Links to operations in texts, and successors, that lead to none. */
export function findDangling(context: DerivationContext, naming: OperationNaming): void {
  for (const kind of DOCUMENTED_KINDS) {
    for (const [subject, texts] of Object.entries(saidOfKind(context.arrangement.documentation, kind)))
      for (const [field, text] of Object.entries(texts)) {
        if (field === 'successor') {
          if (!naming.idOf.has(text)) report(context, { kind, subject, field, text }, text, null);
          continue;
        }
        if (field !== 'description') continue;
        for (const name of danglingOperations(naming.named(text), (id) => naming.keyOf.has(id)))
          report(context, { kind, subject, field, text }, name, nearOperation(name, naming));
      }
  }
}

interface SaidText {
  readonly kind: DocumentedKind;
  readonly subject: string;
  readonly field: string;
  readonly text: string;
}

/** An operation that may have been meant, by its name and what a text keeps of it. */
interface Meant {
  readonly id: string;
  readonly key: string;
}

function nearOperation(name: string, { keyOf }: OperationNaming): Meant | null {
  const id = nearest(name, keyOf.keys());
  return id === null ? null : { id, key: keyOf.get(id) ?? id };
}

function report(
  context: DerivationContext,
  { kind, subject, field, text }: SaidText,
  name: string,
  meant: Meant | null,
): void {
  const source = {
    kind: 'documentation',
    of: kind,
    subject,
    fields: [field],
    level: 'arrangement',
  } as const;
  const answer = { kind: 'said', of: kind, subject, field } as const;
  context.findings.push({
    id: 'documentation.dangling',
    severity: 'doubtful',
    message: `${field === 'successor' ? 'What is to be used instead' : 'A text links to what'} is no operation: ${name}.`,
    about: subject,
    reasons: [{ rule: 'finding.dangling-documentation', because: [source] }],
    cause: source,
    quickFixes: [
      ...(meant === null
        ? []
        : [
            {
              title: `Link to ${meant.id}`,
              answer: { ...answer, text: withoutOperationLink(text, name, `[operation:${meant.key}]`) },
            },
          ]),
      {
        title: field === 'successor' ? 'Name none' : 'Leave the link out',
        answer: { ...answer, text: field === 'successor' ? null : withoutOperationLink(text, name, name) },
      },
    ],
  });
}
