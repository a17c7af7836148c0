import type { Assumption } from '../../contract/index.js';
import { isSingleton, keyOf, ownerRoleOf, phrase, roleOf } from '../../model/index.js';
import { because, becauseSet, valueOf, type Deriving } from '../context.js';

/** The decisions derivation took on its own, each as a question. */
export function findAssumptions(deriving: Deriving): readonly Assumption[] {
  return [...idAssumptions(deriving), ...roleAssumptions(deriving), pageAssumption(deriving)];
}

function idAssumptions(deriving: Deriving): Assumption[] {
  const entities = [...deriving.index.entities.values()].filter(
    (entity) => keyOf(entity).implicit && !isSingleton(deriving.index, entity.name),
  );
  const [first] = entities;
  if (first === undefined) return [];
  const others = entities.length === 1 ? '' : ` and ${entities.length - 1} more`;
  return [
    {
      id: 'id.kind',
      question: `What is the id of a ${phrase(first.name)}${others}, which ${entities.length === 1 ? 'has' : 'have'} no key?`,
      assumed: 'a counted integer',
      alternatives: ['a random uuid', 'a key of its own'],
      reasons: [becauseSet(deriving, 'member.implicit-id', ['implicitId'], ...entities)],
    },
  ];
}

function roleAssumptions(deriving: Deriving): Assumption[] {
  return deriving.index.relationships.flatMap((relationship) => {
    const found: Assumption[] = [];
    if (relationship.role === null) {
      found.push({
        id: `role:${relationship.id}`,
        question: `What does a ${phrase(relationship.from)} call its ${phrase(relationship.to)}?`,
        assumed: roleOf(relationship),
        alternatives: ['another name, after as'],
        reasons: [because('name.path', relationship)],
      });
    }
    if (relationship.kind === 'owns' && relationship.back === null) {
      found.push({
        id: `owner-role:${relationship.id}`,
        question: `What does a ${phrase(relationship.to)} call the ${phrase(relationship.from)} it belongs to?`,
        assumed: ownerRoleOf(relationship),
        alternatives: ['another name, after back as'],
        reasons: [because('member.owner', relationship)],
      });
    }
    return found;
  });
}

function pageAssumption(deriving: Deriving): Assumption {
  return {
    id: 'page.size',
    question: 'How many records come in one page when nobody says?',
    assumed: String(valueOf(deriving, 'pageSize')),
    alternatives: ['50', '100'],
    reasons: [becauseSet(deriving, 'list.page', ['pageSize', 'maxPageSize'])],
  };
}
