import { useAppDispatch, useAppSelector } from '../app/store.js';
import { faceKey, faceText, type Face } from './faces.js';
import { faceChosen } from './mocksSlice.js';

interface Props {
  readonly faces: readonly Face[];
  readonly shown: Face;
  /** Starts a mock of the arrangements, where only releases are served. */
  readonly onServe: () => void;
}

/** What the mocks of a design serve; the one that is pressed is the one whose base URL is shown. */
export function MockFaces({ faces, shown, onServe }: Props): React.JSX.Element {
  const dispatch = useAppDispatch();
  const arrangement = useAppSelector((root) => root.design.arrangement);
  return (
    <span className="mock-faces" role="group" aria-label="What is served">
      {faces.map((face) => (
        <button
          key={faceKey(face)}
          type="button"
          className="text-button"
          aria-pressed={faceKey(face) === faceKey(shown)}
          title={
            face.mock.id === shown.mock.id
              ? `Show where ${faceText(face)} is served`
              : `${faceText(face)} has records of its own`
          }
          onClick={() => dispatch(faceChosen({ face: faceKey(face), arrangement }))}
        >
          {faceText(face)}
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
