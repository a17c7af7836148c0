import {
  isPublished,
  indexContract,
  PROBLEMS,
  RULES,
  wholePath,
  type ProblemCode,
} from '../contract/index.js';
import { relationPath, variablePath } from './form.js';
import { operationPath } from './deprecation.js';
import { problemPath, problemTexts } from './problem.js';
import { descriptionPath } from './represent.js';
import { pageAbout, TEXT, type DocumentationPage } from './pagesAbout.js';
import type { Service } from './service.js';

/** The published description, a kind of problem, or a link relation; `null` where a path is of none of them. */
export function documentationPage(service: Service, path: string): DocumentationPage | null {
  const { root } = service.contract;
  if (!path.startsWith(`${root}/-/`)) return null;
  if (path === descriptionPath(root)) {
    const text = service.description();
    return { mediaType: 'application/json', text, about: 'the published description' };
  }
  const page = pageAbout(service, path.slice(root.length));
  if (page !== null) return page;
  const relation = relationText(service, path);
  if (relation !== null) return { mediaType: TEXT, text: relation, about: 'the page about a link relation' };
  const variable = variableText(service, path);
  if (variable !== null) return { mediaType: TEXT, text: variable, about: 'the page about a variable' };
  const operation = operationText(service, path);
  if (operation !== null) return { mediaType: TEXT, text: operation, about: 'the page about an operation' };
  for (const code of Object.keys(PROBLEMS) as ProblemCode[]) {
    if (path !== problemPath(root, code)) continue;
    const { title, about } = problemTexts(service.contract, code);
    return { mediaType: TEXT, text: `${title}\n\n${about}\n`, about: 'the page about a kind of problem' };
  }
  return null;
}

/** Which templates a variable is in, and what fills it in. */
function variableText({ contract }: Service, path: string): string | null {
  const start = variablePath(contract.root, '');
  if (!path.startsWith(start)) return null;
  const name = path.slice(start.length);
  const lists = contract.resources.filter(({ links }) =>
    links.some(
      ({ target }) => target.kind === 'template' && Object.values(target.variables ?? {}).includes(name),
    ),
  );
  if (lists.length === 0) return null;
  const places = lists.map((list) => `${contract.root}${list.path}\n`).join('');
  return `${name}\n\nThe member ${name} of a listed record fills it in.\n\nOffered at:\n${places}`;
}

/** What an operation is for, and what becomes of it. */
function operationText({ contract }: Service, path: string): string | null {
  const start = operationPath(contract.root, '');
  if (!path.startsWith(start)) return null;
  const { operations } = indexContract(contract);
  const operation = operations.get(path.slice(start.length));
  if (operation === undefined || !isPublished(operation)) return null;
  const { id, method, resource, summary, documentation } = operation;
  const { description = null, deprecated = null, sunset = null, successor = null } = documentation ?? {};
  const instead = operations.get(successor ?? '');
  const lines = [
    `${id}\n`,
    `${method} ${wholePath(contract, resource)}: ${summary}\n`,
    ...(description === null ? [] : [`${description}\n`]),
    ...(deprecated === null ? [] : [`Deprecated from ${deprecated}.\n`]),
    ...(sunset === null ? [] : [`Stops answering on ${sunset}.\n`]),
    ...(instead === undefined
      ? []
      : [`Use ${instead.id} in its place: ${instead.method} ${wholePath(contract, instead.resource)}.\n`]),
  ];
  return lines.join('\n');
}

/** What a link relation of the contract means, in words, and where it is offered. */
function relationText({ contract }: Service, path: string): string | null {
  const start = relationPath(contract.root, '');
  if (!path.startsWith(start)) return null;
  const relation = path.slice(start.length);
  const links = contract.resources.flatMap(({ path: from, links: own }) =>
    own.filter((link) => link.relation === relation).map(({ reasons }) => ({ from, reasons })),
  );
  const rule = links[0]?.reasons[0]?.rule;
  if (rule === undefined) return null;
  const places = links.map(({ from }) => `${contract.root}${from}\n`).join('');
  return `${relation}\n\n${RULES[rule].sentence}\n\nOffered at:\n${places}`;
}
