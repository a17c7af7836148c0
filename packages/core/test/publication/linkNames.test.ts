import { expect, test } from '@jest/globals';
import { readContract, writeContract } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { openApiDocument } from '@isomeros/core/publication';
import { modelOf } from '../support/models.js';
import { linkedBy, resourceAt } from '../support/ownLinks.js';

/** Names that objects have by themselves. */
test.each(['constructor', 'toString', 'hasOwnProperty'])(
  'a link leads by a parameter that is called %s',
  (name) => {
    const model = modelOf(`entity Harbour\n  ${name}: text, key\n  title: text\n`);
    const settings = { parameterNames: 'key alone' } as const;
    const arrangement = linkedBy(model, [[`/harbours/{${name}}`, 'alternate -> readHarbour']], settings);
    // As it is kept: its objects are those of the language.
    const contract = readContract(writeContract(derive(model, arrangement)));
    expect(resourceAt(contract, `/harbours/{${name}}`)).toBe('Harbour/item');
    const document = JSON.stringify(openApiDocument(contract));
    expect(document).toContain(`"parameters":{"${name}":"$request.path.${name}"}`);
  },
);
