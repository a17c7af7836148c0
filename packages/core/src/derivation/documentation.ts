import { operationKey, saidOf, WHOLE_API, type SaidOf } from '../arrangement/index.js';
import type {
  ApiDocumentation,
  Contract,
  ExternalDocumentation,
  Finding,
  Operation,
  OperationDocumentation,
} from '../contract/index.js';
import { valueOf, type DerivationContext } from './context.js';

/** Operations with what is said of each; what is said takes the place of what was derived. */
export function documentedOperations(
  context: DerivationContext,
  operations: readonly Operation[],
): readonly Operation[] {
  const { documentation } = context.arrangement;
  if (documentation.operation === undefined) return operations;
  findLost(context, operations);
  return operations.map((operation) => {
    const subject = operationKey(operation.resource, operation.verb);
    const said = saidOf(documentation, 'operation', subject);
    const fields = Object.keys(said);
    if (fields.length === 0) return operation;
    return {
      ...operation,
      summary: said.summary ?? operation.summary,
      documentation: saidOfOperation(said),
      reasons: [
        ...operation.reasons,
        {
          rule: 'operation.documented',
          because: [{ kind: 'documentation', of: 'operation', subject, fields, level: 'arrangement' }],
        },
      ],
    };
  });
}

const saidOfOperation = (said: SaidOf<'operation'>): OperationDocumentation => ({
  description: said.description ?? null,
  external: externalOf(said),
  deprecated: said.deprecated ?? null,
  sunset: said.sunset ?? null,
  isPublished: said.unpublished === undefined,
});

const externalOf = ({
  externalUrl: url,
  externalText: text,
}: SaidOf<'operation'>): ExternalDocumentation | null =>
  url === undefined ? null : { url, text: text ?? null };

/** What is said of what is not there any more is told of; it waits to be given to something else, or dropped. */
function findLost(context: DerivationContext, operations: readonly Operation[]): void {
  const known = new Map(operations.map((one) => [operationKey(one.resource, one.verb), one]));
  for (const [subject, said] of Object.entries(context.arrangement.documentation.operation ?? {})) {
    if (known.has(subject)) continue;
    const fields = Object.keys(said);
    const source = { kind: 'documentation', of: 'operation', subject, fields, level: 'arrangement' } as const;
    const others = [...known].filter(
      ([key, { verb }]) =>
        subject.endsWith(`:${verb}`) &&
        Object.keys(saidOf(context.arrangement.documentation, 'operation', key)).length === 0,
    );
    const finding: Finding = {
      id: 'documentation.lost',
      severity: 'doubtful',
      message: `What is said of an operation has none any more: ${quoted(said)}.`,
      about: subject,
      reasons: [{ rule: 'finding.lost-documentation', because: [source] }],
      cause: source,
      quickFixes: [
        ...others.slice(0, MOST_OFFERED).map(([key, { id }]) => ({
          title: `Say it of ${id}`,
          answer: { kind: 'documentation', of: 'operation', subject, to: key } as const,
        })),
        { title: 'Drop it', answer: { kind: 'documentation', of: 'operation', subject, to: null } },
      ],
    };
    context.findings.push(finding);
  }
}

const MOST_OFFERED = 3;
const LONGEST_QUOTE = 60;

function quoted({ summary, description, ...others }: SaidOf<'operation'>): string {
  const text = summary ?? description;
  if (text === undefined) return Object.keys(others).join(', ');
  return JSON.stringify(text.length > LONGEST_QUOTE ? `${text.slice(0, LONGEST_QUOTE - 1)}…` : text);
}

/** What is said of the API as a whole. */
export function apiDocumentation(
  context: DerivationContext,
): Pick<Contract, 'description'> & { readonly documentation: ApiDocumentation } {
  const said = saidOf(context.arrangement.documentation, 'api', WHOLE_API);
  const { contactName: name = null, contactUrl: url = null, contactEmail: email = null } = said;
  const [terms, license] = [valueOf(context, 'termsUrl'), valueOf(context, 'licenseUrl')];
  const isContacted = name !== null || url !== null || email !== null;
  return {
    description: said.description ?? context.model.description,
    documentation: {
      summary: said.summary ?? null,
      contact: isContacted ? { name, url, email } : null,
      license:
        said.licenseName === undefined && license === ''
          ? null
          : { name: said.licenseName ?? license, url: license === '' ? null : license },
      terms: terms === '' ? null : terms,
      external: externalOf(said),
    },
  };
}

/** The title that is said of the API; `null` where it is the name of the design. */
export const saidTitle = ({ arrangement }: DerivationContext): string | null =>
  saidOf(arrangement.documentation, 'api', WHOLE_API).title ?? null;
