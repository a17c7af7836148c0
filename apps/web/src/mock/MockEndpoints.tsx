import { useAppDispatch, useAppSelector } from '../app/store.js';
import { answersUnversioned, contractOf, endpointKey, endpointText, type MockEndpoint } from './endpoints.js';
import { useAnswerUnversionedMutation } from './mocksApi.js';
import { arrangementName, endpointChosen } from '../design/viewSlice.js';

interface Props {
  readonly endpoints: readonly MockEndpoint[];
  readonly shown: MockEndpoint;
  /** Starts a mock of the arrangements, where only releases are served. */
  readonly onServe: () => void;
}

/** What the mocks of a design serve; the one that is pressed is the one whose base URL is shown. */
export function MockEndpoints({ endpoints, shown, onServe }: Props): React.JSX.Element {
  const dispatch = useAppDispatch();
  const arrangement = useAppSelector(arrangementName);
  const [answerUnversioned] = useAnswerUnversionedMutation();
  const answers = answersUnversioned(endpoints, shown);
  return (
    <span className="mock-endpoints" role="group" aria-label="What is served">
      {endpoints.map((endpoint) => (
        <button
          key={endpointKey(endpoint)}
          type="button"
          className="text-button"
          aria-pressed={endpointKey(endpoint) === endpointKey(shown)}
          title={
            endpoint.mock.id === shown.mock.id
              ? `Show where ${endpointText(endpoint)} is served`
              : `${endpointText(endpoint)} has records of its own`
          }
          onClick={() => dispatch(endpointChosen({ endpoint: endpointKey(endpoint), arrangement }))}
        >
          {endpointText(endpoint)}
          {endpoint.mock.id !== shown.mock.id && <span className="quiet"> with its own records</span>}
        </button>
      ))}
      {answers !== null && (
        <button
          type="button"
          className="text-button"
          aria-pressed={answers}
          title="Answers requests that name no version"
          onClick={() => void answerUnversioned({ id: shown.mock.id, served: contractOf(shown) })}
        >
          without a version
        </button>
      )}
      {endpoints.every(({ kind }) => kind === 'release') && (
        <button type="button" className="text-button" onClick={onServe}>
          Serve {arrangement}, too
        </button>
      )}
    </span>
  );
}
