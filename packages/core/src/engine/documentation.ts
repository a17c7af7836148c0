import { RULES } from '../contract/index.js';
import { relationPath, variablePath } from './form.js';
import type { ProblemCode } from './message.js';
import { PROBLEMS, problemPath } from './problem.js';
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
  for (const [code, { title, about }] of Object.entries(PROBLEMS)) {
    if (path !== problemPath(root, code as ProblemCode)) continue;
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
