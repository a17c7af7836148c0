import { Popover } from 'antd';
import { ExplainedWords } from '../app/help/Explained.js';
import type { MockEndpoint } from './endpoints.js';
import { useListCredentialsQuery } from './mocksApi.js';

/** Whom the mock knows, where it asks who sends: what curl is given stands one click away. */
export function Credentials({ endpoint }: { readonly endpoint: MockEndpoint }): React.JSX.Element | null {
  const { mock, kind, name: served } = endpoint;
  const { data } = useListCredentialsQuery({ mock: mock.id, servesRevision: mock.servesRevision });
  const known = data?.filter((who) => (kind === 'release' ? who.release : who.arrangement) === served) ?? [];
  if (known.length === 0) return null;
  return (
    <div className="fact credentials">
      <span className="label">
        <ExplainedWords by="mock.knows">Knows</ExplainedWords>
      </span>
      <span>
        {known.map(({ name, secret, roles, headers }) => (
          <Popover
            key={name}
            trigger="click"
            arrow={false}
            placement="bottomRight"
            content={
              <dl className="credential">
                <dt>{roles.length === 0 ? 'Without a role' : `As ${roles.join(' and ')}`}, sends</dt>
                {headers.map((header) => (
                  <dd key={header.value}>
                    <code>
                      {header.name}: {header.value}
                    </code>
                  </dd>
                ))}
              </dl>
            }
          >
            <button type="button" className="text-button mono">
              {name}:{secret}
            </button>
          </Popover>
        ))}
      </span>
    </div>
  );
}
