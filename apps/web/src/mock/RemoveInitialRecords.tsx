import { Popconfirm } from 'antd';
import { refusalText } from '../app/api/client.js';
import { Explained } from '../app/help/Explained.js';
import { useAppDispatch } from '../app/store.js';
import { openDesign } from '../design/documentSlice.js';
import { useRemoveInitialRecordsMutation } from '../home/designsApi.js';

interface Props {
  readonly design: string;
  readonly onRefused: (why: string) => void;
}

/** Takes the initial records away from a design, once that is confirmed. */
export function RemoveInitialRecords({ design, onRefused }: Props): React.JSX.Element {
  const dispatch = useAppDispatch();
  const [removeInitialRecords] = useRemoveInitialRecordsMutation();
  const remove = async (): Promise<void> => {
    try {
      await removeInitialRecords(design).unwrap();
      await dispatch(openDesign(design));
    } catch (error) {
      onRefused(refusalText(error));
    }
  };
  return (
    <Popconfirm
      title="Remove the initial records from the design?"
      description="Mocks are seeded from then on; those there are keep their records until they are reset."
      okText="Remove"
      cancelText="Keep"
      onConfirm={() => void remove()}
    >
      <span>
        <Explained by="mock.removeInitial">
          <button type="button" className="text-button">
            Remove them
          </button>
        </Explained>
      </span>
    </Popconfirm>
  );
}
