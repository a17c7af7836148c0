import { creationOrder } from '../../model/index.js';
import { because, type Deriving } from '../context.js';

/** Reports entities of which no record could ever be created. */
export function findImpossible(deriving: Deriving): void {
  for (const entity of creationOrder(deriving.model).impossible) {
    deriving.findings.push({
      id: 'create.impossible',
      severity: 'error',
      message: `No ${entity.name} can ever be created: what it needs first needs it in turn. Make one of the references optional.`,
      about: entity.id,
      reasons: [because('finding.impossible', entity)],
    });
  }
}
