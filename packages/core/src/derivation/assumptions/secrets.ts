import { exposureChoice } from '../../arrangement/index.js';
import type { Assumption } from '../../contract/index.js';
import { isSecretName, phrase, readByComputed, withArticle, type Attribute } from '../../model/index.js';
import { because, type DerivationContext } from '../context.js';

/** What is called like a secret, and is returned all the same. */
export const assumeSecrets = (context: DerivationContext): readonly Assumption[] =>
  [...context.index.entities.values(), ...context.index.values.values()].flatMap((block) =>
    block.attributes
      .filter((attribute) => isShownSecret(attribute) && !isHidden(context, block.id, attribute))
      // What something is computed from cannot be hidden alone.
      .filter(({ id, computed }) => computed === null && !readByComputed(context.model).has(id))
      .map((attribute): Assumption => {
        const change = { writeOnly: true };
        return {
          id: `secret:${attribute.id}`,
          question: `Is the ${phrase(attribute.name)} of ${withArticle(phrase(block.name))} ever returned?`,
          ground: 'It is called like a secret, and every read returns it.',
          options: [
            { label: 'Yes', assumed: true, answer: { kind: 'accept' } },
            {
              label: 'Never: write-only',
              assumed: false,
              answer: { kind: 'edit', edit: { kind: 'change-attribute', attribute: attribute.id, change } },
            },
          ],
          settled: false,
          reasons: [because('member.attribute', attribute)],
        };
      }),
  );

const isShownSecret = ({ name, type, key, writeOnly, readOnly }: Attribute): boolean =>
  type.kind === 'text' && key === null && !writeOnly && !readOnly && isSecretName(name);

const isHidden = ({ arrangement }: DerivationContext, block: string, { id }: Attribute): boolean =>
  exposureChoice(arrangement.exposures, block, id).out === 'no';
