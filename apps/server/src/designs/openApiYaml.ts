import { stringify } from 'yaml';

/** A JSON document in YAML 1.2, whose core schema every one fits. */
export const writeYaml = (document: unknown): string => stringify(document, { aliasDuplicateObjects: false });
