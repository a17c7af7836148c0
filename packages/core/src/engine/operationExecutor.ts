import { hasMoment, type FixedValue } from '../arrangement/index.js';
import {
  answerTypes,
  looksThroughList,
  TEXT_TYPE,
  type MediaType,
  type Operation,
  type Resource,
} from '../contract/index.js';
import { aggregateAnswer } from './aggregateAnswer.js';
import { refuseBody } from './body.js';
import { CONTENT_TYPE } from './form.js';
import { changesInWords } from './changesInWords.js';
import { fixedAnswer } from './fixedAnswer.js';
import { aboutWhole, unwrapBody } from './envelope.js';
import { hasConditions } from './conditions.js';
import { Execution } from './execution.js';
import type { RowChange } from './dataset.js';
import { Draft } from './draft.js';
import { readKey, type IdempotentResponse } from './idempotency.js';
import { firstListed } from './list/answer.js';
import { listAt } from './list/listAt.js';
import { parseQuery, type ParsedQuery } from './list/query.js';
import type { Location } from './locate.js';
import type { EngineResponse, Header, Problem } from './message.js';
import { mediaTypeOf, negotiate } from './negotiate.js';
import { isWrite } from './method.js';
import { executeWrite } from './executeWrite.js';
import { readInputs } from './readInputs.js';
import { returnPreference, withPreference } from './prefer.js';
import { problem } from './problem.js';
import { executeRead } from './executeRead.js';
import { contentLocation, pathTo } from './paths.js';
import { asMediaType, shapeNamed, statusFor, storageNamed } from './service.js';
import type { TokenChange } from './accessTokens.js';
import { AGREED, PAGE_OF_LIST, passed, RECORD_WITH_LINKS } from './trace.js';
import { privately, REVALIDATED, UNSTORED, VARY } from './caching.js';
import { contentTag, recordTag, renderingAt, validatorHeaders } from './validators.js';

/** Carries out an operation: negotiation, query, conditions, body, store rules, representation. */
export class OperationExecutor extends Execution {
  changes: readonly RowChange[] = [];
  kept: IdempotentResponse | null = null;
  tokens: readonly TokenChange[] = [];

  /** Negotiates, reads what is asked for, and answers. */
  run(query: string): EngineResponse | Problem {
    const { operation, resource, location } = this.matched;
    const offered = answerTypes(this.service.contract, operation);
    const mediaType = negotiate(this.request.headers.get('accept'), offered);
    if (mediaType === null) {
      const detail = `Accept rules out everything that is offered: ${offered.join(', ')}.`;
      return this.stop(
        'negotiate',
        problem(statusFor(operation, 'not-acceptable'), 'not-acceptable', detail),
      );
    }
    if (operation.custom?.kind === 'fixed')
      return this.fixed(operation, operation.custom.body, mediaType, query);
    // Whatever else is answered is in one of the forms of records.
    this.service = asMediaType(this.service, mediaType as MediaType);
    this.note(AGREED[mediaType as MediaType]);
    const path = (): string =>
      pathTo(this.service, this.view, resource, location.above ?? location.record) ?? '';
    if (resource.kind === 'aggregate') return this.aggregate(resource, operation, location, path, query);
    if (isWrite(operation.method) && operation.custom !== null && looksThroughList(operation.custom))
      return this.query(resource, operation, location, path, query);
    const read = this.parsed(operation, path, query);
    if ('code' in read) return read;
    return isWrite(operation.method)
      ? this.write(resource, operation, location)
      : this.read(resource, operation, location, read);
  }

  /** A query whose inputs are sent in a body. Its answer has no address, and so no state to be asked for again. */
  private query(
    resource: Resource,
    operation: Operation,
    place: Location,
    path: () => string,
    query: string,
  ): EngineResponse | Problem {
    const { service, view } = this;
    const unread = refuseBody(service.contract, operation, this.request);
    if (unread !== null) return this.stop('body', unread);
    const body = this.readBody(operation);
    if ('problem' in body) return this.stop('body', body.problem);
    const sent = readInputs(service, view, operation, body.value);
    if (!sent.ok) return this.stop(sent.step, sent.problem);
    const asked = this.parsed(operation, path, query, sent.inputs);
    if ('code' in asked) return asked;
    const location = operation.custom?.kind === 'find' ? this.found(resource, place, asked) : place;
    if (location === null) return this.notFound(resource, operation);
    const { rendered } = executeRead(service, view, resource, location, asked);
    this.note(location.record === null ? PAGE_OF_LIST : RECORD_WITH_LINKS);
    const elsewhere = contentLocation(this.service, this.view, resource, location);
    const headers = [...rendered.headers, ...(elsewhere === null ? [] : [elsewhere])];
    return { status: statusFor(operation, 'ok'), headers, body: rendered.text };
  }

  private notFound(resource: Resource, operation: Operation): Problem {
    const detail = `There is no ${resource.entity ?? ''} that ${operation.id} looks for.`;
    return this.stop('store', problem(statusFor(operation, 'missing'), 'not-found', detail));
  }

  /** What is the same for everybody, but for the moment. */
  private fixed(
    operation: Operation,
    body: FixedValue,
    mediaType: string,
    query: string,
  ): EngineResponse | Problem {
    const read = this.parsed(operation, () => '', query);
    if ('code' in read) return read;
    const text = fixedAnswer(this.service, body);
    const type: Header = [
      'Content-Type',
      mediaType === TEXT_TYPE ? `${TEXT_TYPE}; charset=utf-8` : mediaType,
    ];
    if (!hasMoment(body)) return this.withoutRecord(operation, type, text, 'a fixed answer');
    this.note(passed('represent', 'a fixed answer of this moment'));
    return { status: statusFor(operation, 'ok'), headers: [type, VARY, UNSTORED], body: text };
  }

  /** What some records come to. */
  private aggregate(
    resource: Resource,
    operation: Operation,
    location: Location,
    path: () => string,
    query: string,
  ): EngineResponse | Problem {
    const { service, view } = this;
    const { custom } = operation;
    const read = this.parsed(operation, path, query);
    if ('code' in read) return read;
    const [member] = shapeNamed(service, operation.returns).members;
    if (custom?.kind !== 'aggregate' || member === undefined)
      throw new Error(`${operation.id} tells nothing.`);
    const value = aggregateAnswer(service, view, resource, location, custom, read.query.filters);
    const text = JSON.stringify({ [member.name]: value });
    return this.withoutRecord(operation, CONTENT_TYPE['application/json'], text, 'an aggregate');
  }

  /** An answer that is no record, with its tag. */
  private withoutRecord(
    operation: Operation,
    type: Header,
    text: string,
    what: string,
  ): EngineResponse | Problem {
    const tag = contentTag(this.service, text);
    const cached: readonly Header[] = [['ETag', tag], VARY, REVALIDATED];
    const verdict = this.verdict(null, tag);
    if (verdict.kind === 'failed') return this.failed(operation, verdict.detail);
    if (verdict.kind === 'not-modified') return this.notModified(operation, cached);
    this.note(passed('represent', what));
    return { status: statusFor(operation, 'ok'), headers: [type, ...cached], body: text };
  }

  private read(
    resource: Resource,
    operation: Operation,
    place: Location,
    asked: ParsedQuery,
  ): EngineResponse | Problem {
    const { service, view } = this;
    const isCaller = operation.custom?.kind === 'caller';
    if (isCaller && !this.isCalledBy(resource)) {
      const detail = `${this.matched.who?.name ?? 'Nobody'} is no ${resource.entity ?? ''}.`;
      return this.stop('authorise', problem(statusFor(operation, 'forbidden'), 'forbidden', detail));
    }
    const location =
      operation.custom?.kind === 'find'
        ? this.found(resource, place, asked)
        : isCaller
          ? { ...place, record: this.matched.who?.token?.record ?? null }
          : place;
    if (location === null) return this.notFound(resource, operation);
    const { rendered, state, total, isMore } = executeRead(service, view, resource, location, asked);
    const shown = renderingAt(resource, location);
    const tag =
      shown === null ? contentTag(service, state) : recordTag(service, view, shown, asked.query, rendered);
    const cached = [
      ...validatorHeaders(service, shown, tag),
      ...(isCaller ? privately(service.contract) : [VARY, REVALIDATED]),
    ];
    const elsewhere = contentLocation(this.service, this.view, resource, location);
    if (elsewhere !== null) cached.push(elsewhere);
    const verdict = this.verdict(shown, tag);
    if (verdict.kind === 'failed') return this.failed(operation, verdict.detail);
    if (verdict.kind === 'not-modified') return this.notModified(operation, cached);
    this.note(operation.verb === 'list' ? PAGE_OF_LIST : RECORD_WITH_LINKS);
    const headers = [...rendered.headers, ...cached];
    if (this.isTotalTold(total)) headers.push([service.contract.totalHeader, String(total)]);
    if (isMore !== null && this.isBare(operation))
      headers.push([service.contract.moreHeader, isMore ? '?1' : '?0']);
    return { status: statusFor(operation, 'ok'), headers, body: rendered.text };
  }

  /** Whether the caller has a token for a record of what a resource shows. */
  private isCalledBy({ entity }: Resource): boolean {
    const record = this.matched.who?.token?.record;
    return record !== undefined && record.entity === storageNamed(this.service, entity).entity.id;
  }

  /** Where the one record is that a query finds; `null` where there is none. */
  private found(resource: Resource, place: Location, { query }: ParsedQuery): Location | null {
    const record = firstListed(this.service, this.view, resource, place.above, query);
    return record === null ? null : { ...place, record };
  }

  /** Whether a write may go on, by what it says about the state it was made for. */
  private conditions(resource: Resource, operation: Operation, location: Location): Problem | null {
    const shown = renderingAt(resource, location);
    const isNamed = this.request.headers.has('if-match') || this.request.headers.has('if-none-match');
    if (operation.ifMatch === 'required' && shown !== null && !isNamed) {
      const detail = 'Expected If-Match with the ETag of what is to be changed.';
      const status = statusFor(operation, 'precondition-missing');
      return this.stop('conditions', problem(status, 'precondition-missing', detail));
    }
    const isList = resource.kind === 'collection';
    const tag = isList && hasConditions(this.request) ? this.listTag(resource, location) : null;
    const verdict = this.verdict(shown, tag);
    if (verdict.kind === 'failed') return this.failed(operation, verdict.detail);
    if (hasConditions(this.request))
      this.note(passed('conditions', 'the state is the one that was asked for'));
    return null;
  }

  /** The tag of a list as it is answered where nothing is asked for. */
  private listTag(resource: Resource, location: Location): string | null {
    const list = listAt(this.service, resource.id);
    if (list === undefined) return null;
    const read = parseQuery(this.service, list, () => this.request.target, '');
    if (!read.ok) return null;
    const { state } = executeRead(this.service, this.view, resource, location, read.asked);
    return contentTag(this.service, state);
  }

  private write(resource: Resource, operation: Operation, location: Location): EngineResponse | Problem {
    const { service, view, request } = this;
    if (!(view instanceof Draft)) throw new Error('A write needs a draft.');
    const unread = refuseBody(service.contract, operation, request);
    if (unread !== null) return this.stop('body', unread);
    const failed = this.conditions(resource, operation, location);
    if (failed !== null) return failed;
    const keyed = readKey(view, operation, request, this.matched.who, service);
    if (keyed.kind === 'refused') return this.stop('conditions', keyed.problem);
    if (keyed.kind === 'again') {
      this.note(passed('conditions', 'sent again with its Idempotency-Key: the first answer'));
      return keyed.answer.response;
    }
    const body = this.readBody(operation);
    if ('problem' in body) return this.stop('body', body.problem);
    const bodyType = mediaTypeOf(request.headers.get('content-type'));
    const sent = unwrapBody(service, view, operation, body.value, bodyType);
    if (!sent.ok) return this.stop(sent.step, sent.problem);
    const preference = operation.prefers ? returnPreference(request) : null;
    const outcome = executeWrite(service, view, this.runtime, {
      resource,
      operation,
      location,
      body: sent.body,
      bodyType,
      isMinimal: preference === 'minimal',
      who: this.matched.who,
    });
    if (!outcome.ok) return this.stop(outcome.step, aboutWhole(outcome.problem, sent.pointer));
    this.changes = outcome.changes;
    this.tokens = outcome.tokens ?? [];
    this.note(passed('apply', changesInWords(outcome.changes)));
    const response = withPreference(outcome.response, preference);
    if (keyed.kind === 'first') {
      const { id, fingerprint } = keyed;
      this.kept = { id, fingerprint, at: service.now, response };
      view.keep(this.kept);
    }
    return response;
  }

  /** Whether a header tells how many records there are. */
  private isTotalTold(total: number | null): boolean {
    const { paging } = this.matched.operation;
    if (total === null || paging === null) return false;
    return paging.totals === 'header' || (paging.totals === 'body' && this.isBare(this.matched.operation));
  }

  /** Whether a list is answered as an array with nothing around it. */
  private isBare({ paging }: Operation): boolean {
    return paging?.envelope === 'bare' && this.service.mediaType === 'application/json';
  }
}
