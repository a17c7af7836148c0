import type { PageForm, Resource } from '../../contract/index.js';
import { indexOf, type RequestContext } from '../service.js';

/** The form in which the list of a resource is answered. */
export function formAt(service: RequestContext, { id }: Resource): PageForm {
  const list = indexOf(service)
    .operationsOf.get(id)
    ?.find(({ verb }) => verb === 'list');
  return list?.paging ?? service.contract.paging;
}
