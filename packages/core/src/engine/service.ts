import {
  indexContract,
  type Contract,
  type ContractIndex,
  type MediaType,
  type Operation,
  type ResponseCode,
  type Shape,
} from '../contract/index.js';
import type { Sibling } from './siblings.js';
import { storageOf, type EntityStorage, type Model, type Storage } from '../model/index.js';

/** What a mock serves: one contract over the records of one model. */
export interface Service {
  readonly contract: Contract;
  readonly model: Model;
  /** The published description of the contract, as a JSON text. */
  readonly description: () => string;
  /** What the contract says, as a page to read, in HTML. */
  readonly reference: () => string;
  /** Which arrangement or release it is, where several serve the same records: each has its own Idempotency-Keys. */
  readonly name?: string | undefined;
  /** What else is served at the same origin. */
  readonly beside?: (() => readonly Sibling[]) | undefined;
  /** Known to the mock alone: what it signs with this it has written itself. */
  readonly secret: string;
  /** A quicker way to what `digestOf` gives, where the platform has one. */
  readonly digest?: ((text: string) => string) | undefined;
}

/** A service while it handles one request: the moment of the request decides what is allowed. */
export interface RequestContext extends Service {
  /** Milliseconds since 1970. */
  readonly now: number;
  /** The media type that was agreed on. */
  readonly mediaType: MediaType;
  /** Where the mock was asked, as a scheme with a host; `null` where the request does not tell. */
  readonly host: string | null;
  /** What stands before the path of a link: the same, or nothing. */
  readonly origin: string;
}

/** A service at a moment. Written out, since it is made for every request. */
export const requestContextAt = (
  { contract, model, description, reference, name, beside, secret, digest }: Service,
  now: number,
  mediaType: MediaType,
  host: string | null,
): RequestContext => ({
  contract,
  model,
  description,
  reference,
  name,
  beside,
  secret,
  digest,
  now,
  mediaType,
  host,
  origin: contract.representation.linkForm === 'absolute' ? (host ?? '') : '',
});

export const asMediaType = (service: RequestContext, mediaType: MediaType): RequestContext =>
  service.mediaType === mediaType ? service : requestContextAt(service, service.now, mediaType, service.host);

/** The clock and the dice, handed in so that a run can be repeated. */
export interface Runtime {
  /** Milliseconds since 1970. */
  readonly now: () => number;
  /** A number from 0 up to but not including 1. */
  readonly random: () => number;
  /** A text that nobody can guess, of at least 128 bits. */
  readonly token: () => string;
  /** Milliseconds that only go forward, by which steps are timed; they are not where it is left out. */
  readonly clock?: (() => number) | undefined;
}

export const indexOf = (service: Service): ContractIndex => indexContract(service.contract);
/** Whatever serves, or looks at, the records of a model. */
export type OfModel = Pick<Service, 'model'>;

export const storages = ({ model }: OfModel): Storage => storageOf(model);

export function storageNamed(service: OfModel, entity: string | null): EntityStorage {
  const storage = storages(service).byName.get(entity ?? '');
  if (storage === undefined) throw new Error(`The dataset has no entity ${entity}.`);
  return storage;
}

export function shapeNamed(service: Service, name: string | null): Shape {
  const shape = indexOf(service).shapes.get(name ?? '');
  if (shape === undefined) throw new Error(`The contract has no shape ${name}.`);
  return shape;
}

/** The status the contract gives to a situation, so that engine and description cannot differ. */
export function statusFor(operation: Operation, code: ResponseCode): number {
  const response = operation.responses.find((candidate) => candidate.code === code);
  if (response === undefined) throw new Error(`${operation.id} has no answer for ${code}.`);
  return response.status;
}
