import { MASK } from '@isomeros/core/engine';
import { Fragment } from 'react';
import type { Exchange, Message } from '@isomeros/api';
import { indentJson } from '../app/parts/json.js';

interface Props {
  readonly exchange: Exchange;
  readonly onFollow: (path: string) => void;
}

/** A request and its response as they travelled; links in the response can be followed. */
export function ExchangeMessages({
  exchange: { request, response, page },
  onFollow,
}: Props): React.JSX.Element {
  return (
    <div className="exchange-messages">
      <div>
        <MessageHead message={request} onFollow={null} />
        {request.body !== '' && <pre className="message">{indentJson(request.body, 34)}</pre>}
        {`${request.head}${request.body}`.includes(MASK) && (
          <p className="empty-note">{MASK} stands for a secret, which is not kept.</p>
        )}
        {request.cut && <p className="empty-note">The body is longer than the journal keeps.</p>}
        {request.withheld !== null && (
          <p className="empty-note">
            {request.withheld} bytes that may hold a secret and could not be masked.
          </p>
        )}
      </div>
      <div>
        <MessageHead message={response} onFollow={onFollow} />
        {page && <p className="empty-note">A browser got a page that shows this resource.</p>}
        {response.body !== '' && (
          <pre className="message">
            <WithLinks text={indentJson(response.body, 64)} onFollow={onFollow} />
          </pre>
        )}
        {response.cut && <p className="empty-note">The body is longer than the journal keeps.</p>}
      </div>
    </div>
  );
}

function MessageHead({
  message,
  onFollow,
}: {
  readonly message: Message;
  readonly onFollow: ((path: string) => void) | null;
}): React.JSX.Element {
  const [first = '', ...headers] = message.head.split('\r\n');
  return (
    <pre className="message">
      <span className="first-line">{first}</span>
      {headers.map((line) => {
        const [, name = '', value = ''] = /^([^:]*): ?(.*)$/.exec(line) ?? [];
        const isLink = onFollow !== null && (name === 'Location' || name === 'Content-Location');
        return (
          <Fragment key={line}>
            {'\n'}
            <span className="quiet">{name}:</span>{' '}
            {isLink ? <FollowLink path={value} onFollow={onFollow} /> : value}
          </Fragment>
        );
      })}
    </pre>
  );
}

const HREF = /("href": ")((?:https?:\/\/[^"/]+)?\/[^"]*)(")/;

function WithLinks({
  text,
  onFollow,
}: {
  readonly text: string;
  readonly onFollow: (path: string) => void;
}): React.JSX.Element {
  const parts = text.split(new RegExp(HREF.source, 'g'));
  return (
    <>
      {parts.map((part, index) =>
        index % 4 === 2 ? (
          <FollowLink key={index} path={part} onFollow={onFollow} />
        ) : (
          <Fragment key={index}>{part}</Fragment>
        ),
      )}
    </>
  );
}

function FollowLink({
  path,
  onFollow,
}: {
  readonly path: string;
  readonly onFollow: (path: string) => void;
}): React.JSX.Element {
  return (
    <button
      type="button"
      className="link"
      onClick={() => {
        onFollow(path);
      }}
    >
      {path}
    </button>
  );
}
