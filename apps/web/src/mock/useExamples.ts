import { indexModel, literalProblem, sameJson, type Json } from '@isomeros/core/model';
import { parse } from '@isomeros/core/notation';
import { useMemo } from 'react';
import { useAppSelector } from '../app/store.js';
import { useModelEdit } from '../design/useModelEdit.js';

/** Whether a value is the example of its attribute; if not, makes it so. */
export type ExampleUse = { readonly kind: 'is' } | { readonly kind: 'may'; readonly make: () => void };

/** Tells of values of a type of record whether they can become the examples of their attributes; `null` where not. */
export function useExamples(type: string): (attribute: string, value: Json) => ExampleUse | null {
  const text = useAppSelector((state) => state.document.text);
  const identities = useAppSelector((state) => state.document.design?.identities);
  const edit = useModelEdit();
  const attributes = useMemo(
    () => indexModel(parse(text, identities).model).entities.get(type)?.attributes ?? [],
    [text, identities, type],
  );
  return (name, value) => {
    const attribute = attributes.find((candidate) => candidate.name === name);
    if (attribute === undefined || value === null || literalProblem(attribute.type, value) !== null)
      return null;
    if (sameJson(attribute.example, value)) return { kind: 'is' };
    const { id } = attribute;
    return {
      kind: 'may',
      make: () => edit({ kind: 'change-attribute', attribute: id, change: { example: value } }),
    };
  };
}
