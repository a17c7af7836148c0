import type { Assumption } from '../../contract/index.js';
import {
  isIdentityName,
  phrase,
  setByServer,
  withArticle,
  type Attribute,
  type AttributeEdit,
} from '../../model/index.js';
import { because, type DerivationContext } from '../context.js';

/** What clients must send, though it is called like something that servers make. */
export const assumeMade = (context: DerivationContext): readonly Assumption[] =>
  [...context.index.entities.values()].flatMap((entity) =>
    entity.attributes.flatMap((attribute): readonly Assumption[] => {
      const change = madeByServer(attribute);
      if (change === null) return [];
      const how = change.touched === true ? 'The server at every change' : 'The server at creation';
      return [
        {
          id: `made:${attribute.id}`,
          question: `Who makes the ${phrase(attribute.name)} of ${withArticle(phrase(entity.name))}?`,
          ground: 'It is called like something a server makes, and must be sent.',
          options: [
            { label: 'The client', assumed: true, answer: { kind: 'accept' } },
            {
              label: how,
              assumed: false,
              answer: { kind: 'edit', edit: { kind: 'change-attribute', attribute: attribute.id, change } },
            },
          ],
          settled: false,
          reasons: [because('member.attribute', attribute)],
        },
      ];
    }),
  );

/** What would make the server set an attribute that must be sent today; `null` where nothing says that it should. */
function madeByServer(attribute: Attribute): AttributeEdit['change'] | null {
  const { name, type, key, required, generated, touched, defaultValue } = attribute;
  if (generated || touched || defaultValue !== null || (!required && key === null)) return null;
  if (type.kind === 'uuid' && isIdentityName(name))
    return { generated: true, ...(key === null ? {} : { key: { ...key, generated: true } }) };
  if (type.kind !== 'instant' || key !== null) return null;
  switch (setByServer(name)) {
    case 'once':
      return { generated: true };
    case 'at every change':
      return { touched: true };
    case null:
      return null;
  }
}
