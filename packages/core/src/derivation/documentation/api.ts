import { saidOf, WHOLE_API, type SaidOf } from '../../arrangement/index.js';
import {
  type ApiDocumentation,
  type Contract,
  type ExternalDocumentation,
  type ServedAt,
  type OperationNaming,
} from '../../contract/index.js';
import { valueOf, type DerivationContext } from '../context.js';

type ApiSaid = Pick<Contract, 'description'> & {
  readonly documentation: Omit<ApiDocumentation, 'tags' | 'notes'>;
};

/** What is said of the API as a whole. */
export function apiDocumentation(context: DerivationContext, { named }: OperationNaming): ApiSaid {
  const said = saidOf(context.arrangement.documentation, 'api', WHOLE_API);
  const { contactName: name = null, contactUrl: url = null, contactEmail: email = null } = said;
  const [terms, license] = [valueOf(context, 'termsUrl'), valueOf(context, 'licenseUrl')];
  const isContacted = name !== null || url !== null || email !== null;
  return {
    description: said.description === undefined ? context.model.description : named(said.description),
    documentation: {
      summary: said.summary ?? null,
      version: said.version ?? null,
      contact: isContacted ? { name, url, email } : null,
      license:
        said.licenseName === undefined && license === ''
          ? null
          : { name: said.licenseName ?? license, url: license === '' ? null : license },
      terms: terms === '' ? null : terms,
      external: externalOf(said),
      servers: serversOf(context),
    },
  };
}

/** The title that is said of the API; `null` where it is the name of the design. */
export const saidTitle = ({ arrangement }: DerivationContext): string | null =>
  saidOf(arrangement.documentation, 'api', WHOLE_API).title ?? null;

interface External {
  readonly externalUrl?: string | undefined;
  readonly externalText?: string | undefined;
}

export const externalOf = ({
  externalUrl: url,
  externalText: text,
}: External): ExternalDocumentation | null => (url === undefined ? null : { url, text: text ?? null });

/** Where the API is served; a place without an address is none yet. */
const serversOf = ({ arrangement }: DerivationContext): readonly ServedAt[] =>
  Object.entries(arrangement.documentation.server ?? {}).flatMap(([name, said]) =>
    said.url === undefined
      ? []
      : [{ name, url: said.url, description: said.description ?? null, variables: variablesOf(said) }],
  );

/** Every variable of a URL; one of which nothing is said is what it is called. */
function variablesOf({ url = '', variables = '' }: SaidOf<'server'>): ServedAt['variables'] {
  const said = new Map(
    variables.split('; ').map((one) => {
      const [name = '', values = ''] = one.split(': ');
      return [name, values.split(', ')] as const;
    }),
  );
  const used = [...url.matchAll(/\{(\w+)\}/g)].map(([, name = '']) => name);
  return Object.fromEntries(used.map((name) => [name, said.get(name) ?? [name]]));
}
