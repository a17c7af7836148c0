import type { Finding } from '../../contract/index.js';
import { checkScalar, scalarFromText } from '../../model/index.js';
import { because, type DerivationContext } from '../context.js';
import type { PlacedResource } from '../place/index.js';

/** Reports literal segments beside an id that could have the same text: the literal wins, always. */
export function findShadowed(context: DerivationContext, resources: readonly PlacedResource[]): void {
  if (context.arrangement.customOperations.length === 0) return;
  const queries = resources.filter(({ kind }) => kind === 'query');
  for (const query of queries) {
    const item = resources.find(({ parent, kind }) => parent === query.parent && kind === 'item');
    const [id, word] = [item?.segments.at(-1), query.segments.at(-1)];
    if (id?.kind !== 'id' || word?.kind !== 'literal') continue;
    const key = scalarFromText(id.type, word.text);
    if (key === undefined || checkScalar(id.type, key) !== null) continue;
    context.findings.push(shadows(query, id.entity, word.text));
  }
}

const shadows = ({ id, path, reasons }: PlacedResource, entity: string, text: string): Finding => ({
  id: 'path.shadows',
  severity: 'doubtful',
  message: `${path} would also be the path of a ${entity} ${text}, which is refused.`,
  about: id,
  reasons: [
    { ...because('finding.shadows'), because: reasons.flatMap((reason) => reason.because).slice(0, 2) },
  ],
});
