import type { PossibleRename } from '@isomeros/core/model';
import { Button, Space } from 'antd';
import { useState } from 'react';
import { refusalText } from '../../app/api/client.js';
import { useAppDispatch, useAppSelector } from '../../app/store.js';
import { useAnswerRenameMutation } from '../../design/designApi.js';
import { designChanged } from '../../design/documentSlice.js';
import { saveStateOf } from '../../design/savingSlice.js';

/** Something went and something came in its place: whether one became the other decides what goes on. */
export function RenameRow({ rename }: { readonly rename: PossibleRename }): React.JSX.Element {
  const design = useAppSelector((state) => state.document.design);
  const kept = useAppSelector((state) => saveStateOf(state).kind === 'saved');
  const dispatch = useAppDispatch();
  const [answerRename] = useAnswerRenameMutation();
  const [failed, setFailed] = useState<string | null>(null);
  const { kind, from, to } = rename;
  const answer = async (renamed: boolean): Promise<void> => {
    if (design === null) return;
    try {
      dispatch(designChanged(await answerRename({ ...design, rename: { from, to, renamed } }).unwrap()));
    } catch (error) {
      setFailed(refusalText(error));
    }
  };
  return (
    <li className="question lately">
      <div className="asked">
        <div className="strong">
          Was <code>{to}</code> called <code>{from}</code> before?
        </div>
        <div className={failed === null ? 'quiet' : 'wrong'}>
          {failed ?? `One ${kind} went, one came. A rename keeps its records.`}
        </div>
      </div>
      <Space.Compact>
        <Button className="assumed" disabled={!kept} onClick={() => void answer(false)}>
          No, it is new
        </Button>
        <Button disabled={!kept} onClick={() => void answer(true)}>
          Yes, this was a rename
        </Button>
      </Space.Compact>
    </li>
  );
}
