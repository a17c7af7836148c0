import { indexContract, type Contract, type LinkStep } from '../contract/index.js';
import { isJsonObject, memoize, readJson, utf8Length, type Json } from '../model/index.js';
import type { Dataset } from './dataset.js';
import { exampleRequest } from './example.js';
import { handle } from './handle.js';
import { filledIn } from './htmlView.js';
import { targetsIn } from './links.js';
import type { EngineRequest } from './message.js';
import type { Runtime, Service } from './service.js';

/** A request on a way, and its answer. */
export interface WayRequest {
  readonly resource: string;
  readonly method: string;
  readonly target: string;
  /** `null` where it would change something, and is not sent. */
  readonly answer: { readonly status: number; readonly bytes: number } | null;
  /** The relation that is followed from its answer; `null` at the end. */
  readonly follows: string | null;
  /** Parameters of the next request that the client must know from elsewhere. */
  readonly needs: readonly string[];
}

/** Of the records of a list so many are tried for the rest of a way. */
const MOST_TRIED = 25;

/**
 * Goes a way on the records there are, from link to link, as far as there is one with a record at each step. `null` where
 * its beginning cannot be asked for.
 */
export function followWay(
  service: Service,
  dataset: Dataset,
  begin: string,
  way: readonly LinkStep[],
  runtime: Runtime,
): readonly WayRequest[] | null {
  const first = exampleOf(service, dataset, begin, runtime);
  return first === null ? null : new Walk(service, dataset, runtime).from(begin, first, way);
}

function exampleOf(service: Service, dataset: Dataset, id: string, runtime: Runtime): EngineRequest | null {
  const operations = indexContract(service.contract).operationsOf.get(id) ?? [];
  const operation = operations.find(({ method }) => method === 'GET') ?? operations[0];
  return operation === undefined ? null : exampleRequest(service, dataset, operation, runtime.now());
}

/** The same contract with all its links in plain JSON, which says where they lead whatever form they have. */
const withPlainLinks = memoize((contract: Contract): Contract => ({
  ...contract,
  representation: {
    ...contract.representation,
    links: 'object',
    linkForm: 'path',
    memberLinks: 'all',
    mediaTypes: ['application/json'],
    record: null,
  },
}));

class Walk {
  constructor(
    private readonly service: Service,
    private readonly dataset: Dataset,
    private readonly runtime: Runtime,
  ) {}

  from(resource: string, request: EngineRequest, way: readonly LinkStep[]): readonly WayRequest[] {
    const [step, ...rest] = way;
    const answer = request.method === 'GET' ? this.answerTo(request) : null;
    const asked: WayRequest = {
      resource,
      method: request.method,
      target: request.target,
      answer,
      follows: step?.relation ?? null,
      needs: step === undefined ? [] : needsOf(this.service.contract, step),
    };
    if (step === undefined) return [asked];
    let longest: readonly WayRequest[] = [];
    for (const next of this.nextRequests(request, step)) {
      const found = this.from(step.to, next, rest);
      if (found.length > longest.length) longest = found;
      if (longest.length === way.length) break;
    }
    return [asked, ...longest];
  }

  private answerTo(request: EngineRequest): WayRequest['answer'] {
    const { response } = handle(this.service, this.dataset, request, this.runtime);
    return { status: response.status, bytes: utf8Length(response.body ?? '') };
  }

  /** What may be asked next, from the records there are. */
  private nextRequests(request: EngineRequest, step: LinkStep): readonly EngineRequest[] {
    const next = exampleOf(this.service, this.dataset, step.to, this.runtime);
    if (next === null) return [];
    if (isFilledIn(step)) return [next];
    const targets = this.linked(request, step);
    return targets.slice(0, MOST_TRIED).map((target) => ({ ...next, target }));
  }

  /** Where the links of an answer, or of the records in it, lead that are such as a step follows. */
  private linked(request: EngineRequest, { link, isOfRecords }: LinkStep): readonly string[] {
    const service = { ...this.service, contract: withPlainLinks(this.service.contract) };
    const plain = { ...request, headers: new Map([...request.headers, ['accept', 'application/json']]) };
    const { response } = handle(service, this.dataset, plain, this.runtime);
    const read = readJson(response.body ?? '');
    if (!read.ok) return [];
    const { links, items } = service.contract.names;
    const hrefs = (body: Json, isTemplate: boolean): readonly string[] =>
      hrefsIn(body, links, link.relation, isTemplate);
    const records = recordsIn(read.value, items);
    if (isOfRecords) return records.flatMap((record) => hrefs(record, false));
    if (link.target.kind !== 'template') return hrefs(read.value, false);
    return hrefs(read.value, true).flatMap((template) =>
      records.flatMap((record) => filledIn(template, record) ?? []),
    );
  }
}

/** The records of a list, bare or in a member. */
function recordsIn(body: Json, items: string): readonly Json[] {
  const listed = isJsonObject(body) ? body[items] : body;
  return Array.isArray(listed) ? (listed as readonly Json[]) : [];
}

function needsOf(contract: Contract, { link, to }: LinkStep): readonly string[] {
  const { target } = link;
  if (target.kind === 'operation') return [...target.open.path, ...target.open.query];
  if (target.kind !== 'resource' || target.query === undefined) return [];
  const asked = (indexContract(contract).operationsOf.get(to) ?? []).flatMap(({ query }) => query);
  return asked.flatMap((one) => (one.role === 'input' && one.default === null ? [one.name] : []));
}

/** Whether a step is followed by filling in a template. */
const isFilledIn = ({ link: { target } }: LinkStep): boolean =>
  (target.kind === 'operation' && target.open.path.length + target.open.query.length > 0) ||
  (target.kind === 'resource' && target.query !== undefined);

/** Where an object links to under a relation: by URI templates, or by what is none. */
function hrefsIn(body: Json, called: string, relation: string, isTemplate: boolean): readonly string[] {
  const links = isJsonObject(body) ? body[called] : undefined;
  const found = isJsonObject(links) && Object.hasOwn(links, relation) ? links[relation] : undefined;
  return targetsIn(found ?? null).flatMap((one) => {
    const { href, templated = false } = isJsonObject(one) ? one : {};
    return typeof href === 'string' && templated === isTemplate && href.startsWith('/') ? [href] : [];
  });
}
