import { indexContract, isPublished, type Operation, type Shape } from '../contract/index.js';
import { storageOf } from '../model/index.js';
import type { CallCredentials, PublishedCall, PublishedCalls } from '../publication/index.js';
import { credentialFor } from './access.js';
import { Draft } from './draft.js';
import { EXAMPLE_NOW, exampleRecords } from './derivedExample.js';
import { Dataset, type RowChange } from './dataset.js';
import { exampleRequest } from './example.js';
import { presenting } from './exampleToken.js';
import { handle } from './handle.js';
import type { EngineRequest } from './message.js';
import type { Runtime, Service } from './service.js';
import { exampleRuntime } from './runExample.js';

/** What is done first leaves the records as they are, what is done last takes them away. */
const STAGES = ['read', 'sign in', 'own', 'make', 'change', 'act', 'sign out', 'remove'] as const;

type Stage = (typeof STAGES)[number];

function stageOf({ verb, custom, method }: Operation): Stage {
  if (custom?.kind === 'verify') return 'sign in';
  if (custom?.kind === 'caller') return 'own';
  if (custom?.kind === 'revoke') return 'sign out';
  switch (verb) {
    case 'entry':
    case 'list':
    case 'read':
      return 'read';
    case 'create':
      return 'make';
    case 'replace':
    case 'change':
    case 'attach':
      return 'change';
    case 'transition':
      return 'act';
    case 'custom':
      return method === 'GET' ? 'read' : 'act';
    case 'remove':
    case 'detach':
      return 'remove';
  }
}

/** Every published operation once; what is below comes before what it is below where records are removed. */
function inOrder({ contract }: Service): readonly Operation[] {
  const published = contract.operations.filter(isPublished);
  return STAGES.flatMap((stage) => {
    const of = published.filter((operation) => stageOf(operation) === stage);
    return stage === 'remove' ? of.reverse() : of;
  });
}

/**
 * A call of every published operation, in an order in which each succeeds on fresh seed records. They are carried out
 * one after the other; what does not succeed at its turn is tried again at the end.
 */
export function callsInOrder(service: Service): PublishedCalls {
  const session = new Session(service);
  const calls: PublishedCall[] = [];
  let waiting = inOrder(service);
  for (let isFirst = true; waiting.length > 0; isFirst = false) {
    const left: Operation[] = [];
    for (const operation of waiting) {
      const call = session.call(operation);
      if (call === null) left.push(operation);
      else calls.push(call);
    }
    if (!isFirst && left.length === waiting.length) return { calls, without: left.map(({ id }) => id) };
    waiting = left;
  }
  return { calls, without: [] };
}

const MOST_ATTEMPTS = 4;

class Session {
  private readonly records: Dataset;
  /** Those whose keys a script knows: a uuid that a server makes is another one each time. */
  private readonly known: Dataset;
  private readonly runtime: Runtime;
  /** As it was handed out last; `null` before. */
  private token: string | null = null;
  private tokens = 0;
  /** What was made and changed before must not be sent again: much of it may stand once only. */
  private dice = 0;

  constructor(private readonly service: Service) {
    this.records = exampleRecords(service.model);
    this.known = new Dataset(service.model, this.records.everything(), this.records.counters);
    this.runtime = { ...exampleRuntime(EXAMPLE_NOW), token: () => `token-${++this.tokens}` };
  }

  /** Carries out an operation; `null` where it does not succeed, whatever is sent, and nothing has changed. */
  call(operation: Operation): PublishedCall | null {
    for (let attempt = 0; attempt < MOST_ATTEMPTS; attempt++) {
      const call = this.attempt(operation);
      if (call !== null) return call;
      if (operation.accepts === null) return null;
    }
    return null;
  }

  private attempt(operation: Operation): PublishedCall | null {
    const { service, records, known } = this;
    const example = exampleRequest(service, known, operation, EXAMPLE_NOW, 'told', ++this.dice);
    const credentials = this.credentialsOf(operation);
    if (example === null || credentials === null) return null;
    const request = { ...example, headers: this.headersFor(example, credentials) };
    const draft = new Draft(records);
    const { response, changes, kept, tokens } = handle(service, draft, request, this.runtime);
    if (response.status >= 400) return null;
    records.apply(changes, draft.counters, { answers: kept === null ? [] : [kept], tokens });
    for (const change of changes) if (this.isKnown(change)) known.apply([change], draft.counters);
    const handsOut = secretMember(this.returned(operation));
    if (handsOut !== null) this.token = `token-${this.tokens}`;
    const { root } = service.contract;
    return {
      operation: operation.id,
      method: request.method,
      target: request.target.startsWith(root) ? request.target.slice(root.length) : request.target,
      headers: new Map([...request.headers].filter(([name]) => !this.isCredential(name))),
      body: request.body.kind === 'text' ? request.body.text : null,
      status: response.status,
      credentials,
      handsOut,
    };
  }

  private isKnown(change: RowChange): boolean {
    const { rid, entity } = change.kind === 'remove' ? change.before : change.after;
    const key = storageOf(this.service.model).byId.get(entity)?.key;
    return change.kind === 'add'
      ? key?.type.kind !== 'uuid' || !key.generated
      : this.known.get(rid) !== undefined;
  }

  private returned({ returns }: Operation): Shape | undefined {
    return indexContract(this.service.contract).shapes.get(returns ?? '');
  }

  private credentialsOf({ access, custom }: Operation): CallCredentials | null {
    if (custom?.kind === 'caller' || custom?.kind === 'revoke')
      return this.token === null ? null : { kind: 'token' };
    if (access.kind === 'anonymous') return { kind: 'none' };
    const who = credentialFor(this.service.contract, access);
    return who === null ? null : { kind: 'known', who: who.name };
  }

  /** A state is asked for by any there is, since a script does not know it. */
  private headersFor({ headers }: EngineRequest, credentials: CallCredentials): ReadonlyMap<string, string> {
    const sent = new Map(headers);
    if (sent.has('if-match')) sent.set('if-match', '*');
    if (credentials.kind !== 'token') return sent;
    const header = presenting(this.service, this.token ?? '');
    if (header !== null) sent.set(header[0].toLowerCase(), header[1]);
    return sent;
  }

  private isCredential(name: string): boolean {
    return name === 'authorization' || name === this.service.contract.security.keyHeader.toLowerCase();
  }
}

/** The member of an answer that holds a token. */
const secretMember = (shape: Shape | undefined): string | null =>
  shape?.members.find(({ source }) => source.kind === 'token' && source.part === 'secret')?.name ?? null;
