import type { ExchangesQuery } from '@isomeros/api';

/** What is looked for in the journal, and what the record is called that it is about. */
export interface LookedFor {
  readonly query: ExchangesQuery;
  /** `Sailing 118`; `null` where no record is meant. */
  readonly record: string | null;
}

/** All exchanges, as far back as the journal goes. */
export const ALL: LookedFor = { query: {}, record: null };

/** One thing that is looked for, in words, and what is looked for without it. */
export interface LookedForPart {
  readonly words: string;
  readonly without: LookedFor;
}

export function lookedForParts({ query, record }: LookedFor): readonly LookedForPart[] {
  return Object.entries(query).map(([name, value]): LookedForPart => {
    const rest: ExchangesQuery = Object.fromEntries(
      Object.entries(query).filter(([other]) => other !== name),
    );
    const isRecord = name === 'record';
    return {
      words: isRecord ? `changed ${record ?? String(value)}` : `${WORDS[name] ?? name} ${String(value)}`,
      without: { query: rest, record: isRecord ? null : record },
    };
  });
}

const WORDS: Readonly<Record<string, string>> = {
  operation: 'operation',
  status: 'status',
  path: 'path with',
  client: 'client',
};

/** The same with one part of it other; empty texts leave it out. */
export function withPart(looked: LookedFor, name: keyof ExchangesQuery, value: string): LookedFor {
  const query: ExchangesQuery = { ...looked.query, [name]: value };
  const kept = Object.entries(query).filter(([, one]) => one !== '' && one !== undefined);
  return { ...looked, query: Object.fromEntries(kept) };
}

/** As the address of an archive has it. */
export const asParameters = ({ query }: LookedFor): Readonly<Record<string, string>> =>
  Object.fromEntries(Object.entries(query).map(([name, value]) => [name, String(value)]));
