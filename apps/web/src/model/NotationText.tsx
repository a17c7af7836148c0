import Markdown from 'react-markdown';
import tables from 'remark-gfm';
import reference from '../../../../docs/notation.md?raw';

const EXTENSIONS = [tables];

/** The reference of the notation, as it stands in the documentation. */
export default function NotationText(): React.JSX.Element {
  return <Markdown remarkPlugins={EXTENSIONS}>{reference}</Markdown>;
}
