/** A path that is cut at its beginning where it is too long: its end tells it apart. */
export const PathText = ({ path }: { readonly path: string }): React.JSX.Element => (
  <code className="strong path-text" title={path}>
    <bdi>{path}</bdi>
  </code>
);
