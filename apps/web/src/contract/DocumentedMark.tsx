import { isDocumented, type Operation } from '@isomeros/core/contract';

export type DocumentedState = 'documented' | 'undocumented' | 'unpublished';

export const documentedState = ({ documentation }: Operation): DocumentedState => {
  if (documentation?.isPublished === false) return 'unpublished';
  return isDocumented(documentation) ? 'documented' : 'undocumented';
};

/** A full square for what is documented, an empty one for what is not, a cross for what no published document has. */
export function DocumentedMark({ state }: { readonly state: DocumentedState }): React.JSX.Element {
  return (
    <svg className="documented-mark" width="8" height="8" viewBox="0 0 8 8" aria-hidden="true">
      {state === 'unpublished' ? (
        <path d="M1 1l6 6M7 1l-6 6" stroke="currentColor" strokeWidth="1.4" />
      ) : (
        <rect
          x="1"
          y="1"
          width="6"
          height="6"
          fill={state === 'documented' ? 'currentColor' : 'none'}
          stroke="currentColor"
          strokeWidth="1.2"
        />
      )}
    </svg>
  );
}
