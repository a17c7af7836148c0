import { useAppDispatch, useAppSelector } from '../app/store.js';
import { endpointKey, endpointText, type MockEndpoint } from './endpoints.js';
import { endpointChosen } from './mocksSlice.js';

interface Props {
  readonly faces: readonly MockEndpoint[];
  readonly shown: MockEndpoint;
  /** Starts a mock of the arrangements, where only releases are served. */
  readonly onServe: () => void;
}

/** What the mocks of a design serve; the one that is pressed is the one whose base URL is shown. */
export function MockEndpoints({ faces, shown, onServe }: Props): React.JSX.Element {
  const dispatch = useAppDispatch();
  const arrangement = useAppSelector((root) => root.design.arrangement);
  return (
    <span className="mock-faces" role="group" aria-label="What is served">
      {faces.map((face) => (
        <button
          key={endpointKey(face)}
          type="button"
          className="text-button"
          aria-pressed={endpointKey(face) === endpointKey(shown)}
          title={
            face.mock.id === shown.mock.id
              ? `Show where ${endpointText(face)} is served`
              : `${endpointText(face)} has records of its own`
          }
          onClick={() => dispatch(endpointChosen({ face: endpointKey(face), arrangement }))}
        >
          {endpointText(face)}
          {face.mock.id !== shown.mock.id && <span className="quiet"> own records</span>}
        </button>
      ))}
      {faces.every(({ kind }) => kind === 'release') && (
        <button type="button" className="text-button" onClick={onServe}>
          Serve {arrangement}, too
        </button>
      )}
    </span>
  );
}
