import { readCommonMark, type TextBlock, type TextSpan } from '@isomeros/core/publication';
import { Fragment, useMemo } from 'react';

interface Props {
  readonly text: string;
  /** The ids of operations that `[listRoutes]` may lead to. */
  readonly operations: ReadonlySet<string>;
  readonly onOperation: (operation: string) => void;
}

/** A text in CommonMark as it reads. Nothing of it is HTML, nothing is loaded. */
export function CommonMark({ text, operations, onOperation }: Props): React.JSX.Element {
  const blocks = useMemo(() => readCommonMark(text, (id) => operations.has(id)), [text, operations]);
  return (
    <div className="common-mark">
      <Blocks blocks={blocks} onOperation={onOperation} />
    </div>
  );
}

interface BlocksProps extends Pick<Props, 'onOperation'> {
  readonly blocks: readonly TextBlock[];
}

const Blocks = ({ blocks, onOperation }: BlocksProps): React.JSX.Element => (
  <>
    {blocks.map((block, index) => (
      <Block key={index} block={block} onOperation={onOperation} />
    ))}
  </>
);

function Block({
  block,
  onOperation,
}: Pick<Props, 'onOperation'> & { readonly block: TextBlock }): React.JSX.Element {
  switch (block.kind) {
    case 'paragraph':
      return (
        <p>
          <Spans spans={block.spans} onOperation={onOperation} />
        </p>
      );
    case 'heading':
      // Headings of the page stand above those of a text.
      return (
        <p className="strong" role="heading" aria-level={Math.min(6, block.depth + 3)}>
          <Spans spans={block.spans} onOperation={onOperation} />
        </p>
      );
    case 'list': {
      const items = block.items.map((blocks, index) => (
        <li key={index}>
          <Blocks blocks={blocks} onOperation={onOperation} />
        </li>
      ));
      return block.start === null ? <ul>{items}</ul> : <ol start={block.start}>{items}</ol>;
    }
    case 'quote':
      return (
        <blockquote>
          <Blocks blocks={block.blocks} onOperation={onOperation} />
        </blockquote>
      );
    case 'code':
      return <pre>{block.text}</pre>;
    case 'rule':
      return <hr />;
  }
}

interface SpansProps extends Pick<Props, 'onOperation'> {
  readonly spans: readonly TextSpan[];
}

const Spans = ({ spans, onOperation }: SpansProps): React.JSX.Element => (
  <>
    {spans.map((span, index) => (
      <Fragment key={index}>{spanOf(span, onOperation)}</Fragment>
    ))}
  </>
);

function spanOf(span: TextSpan, onOperation: Props['onOperation']): React.ReactNode {
  switch (span.kind) {
    case 'text':
      return span.text;
    case 'code':
      return <code>{span.text}</code>;
    case 'break':
      return <br />;
    case 'emphasis':
      return (
        <em>
          <Spans spans={span.spans} onOperation={onOperation} />
        </em>
      );
    case 'strong':
      return (
        <strong>
          <Spans spans={span.spans} onOperation={onOperation} />
        </strong>
      );
    case 'link':
      return (
        <a href={span.url} target="_blank" rel="noreferrer nofollow">
          <Spans spans={span.spans} onOperation={onOperation} />
        </a>
      );
    case 'operation':
      return (
        <button
          type="button"
          className="text-button"
          onClick={(event) => {
            event.stopPropagation();
            onOperation(span.operation);
          }}
        >
          {span.operation}
        </button>
      );
  }
}
