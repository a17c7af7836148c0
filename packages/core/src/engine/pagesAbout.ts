import { isPublished, type LinkTarget, type Operation, type Resource } from '../contract/index.js';
import { schemaOfShape } from '../publication/index.js';
import { indexOf, type Service } from './service.js';

/** A page of the mock about itself. */
export interface DocumentationPage {
  readonly mediaType: string;
  readonly text: string;
  /** What it is, for the trace. */
  readonly about: string;
}

export const TEXT = 'text/plain; charset=utf-8';

/** The page that a link of the API itself leads to, by its path under the root; `null` where none does. */
export function pageAbout(service: Service, path: string): DocumentationPage | null {
  for (const resource of service.contract.resources)
    for (const { relation, was, target } of resource.links)
      if (target.kind === 'about' && target.path === path)
        return page(service, was ?? relation, resource, target);
  return null;
}

function page(
  service: Service,
  relation: string,
  resource: Resource,
  { path }: Extract<LinkTarget, { kind: 'about' }>,
): DocumentationPage | null {
  const read = indexOf(service)
    .operationsOf.get(resource.id)
    ?.find(({ method }) => method === 'GET');
  switch (relation) {
    case 'describedby':
      return {
        mediaType: 'application/schema+json',
        text: JSON.stringify(
          schemaOfShape(service.contract, read?.returns ?? '', service.contract.root + path),
        ),
        about: 'the JSON Schema of an answer',
      };
    case 'profile':
      return { mediaType: TEXT, text: profileText(service, read), about: 'the profile of an answer' };
    default:
      return { mediaType: 'text/html; charset=utf-8', text: service.reference(), about: 'the reference' };
  }
}

/** What the members of an answer are, and what may be done where it is read (RFC 6906). */
function profileText(service: Service, read: Operation | undefined): string {
  const { root } = service.contract;
  const shape = indexOf(service).shapes.get(read?.returns ?? '');
  const members = (shape?.members ?? []).map(({ name, description }) => `  ${name}${said(description)}\n`);
  const resource = indexOf(service).resources.get(read?.resource ?? '');
  const deeds = indexOf(service).operationsOf.get(resource?.id ?? '') ?? [];
  const operations = deeds
    .filter(isPublished)
    .map(({ method, summary }) => `  ${method.padEnd(6)} ${summary}\n`);
  return `${shape?.name ?? ''}\n\nMembers:\n${members.join('')}\nAt ${root}${resource?.path ?? ''}:\n${operations.join('')}`;
}

const said = (description: string | null | undefined): string =>
  description === null || description === undefined || description === '' ? '' : `: ${description}`;
