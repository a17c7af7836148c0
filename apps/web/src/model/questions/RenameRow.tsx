import type { PossibleRename } from '@isomeros/core/model';
import { Button, Space } from 'antd';
import { useState } from 'react';
import { api, refusalText } from '../../app/api/client.js';
import { useAppDispatch, useAppSelector } from '../../app/store.js';
import { designChanged } from '../../design/designSlice.js';

/** Something went and something came in its place: whether one became the other decides what goes on. */
export function RenameRow({ rename }: { readonly rename: PossibleRename }): React.JSX.Element {
  const design = useAppSelector((state) => state.design.design);
  const kept = useAppSelector((state) => state.design.keeping.kind === 'kept');
  const dispatch = useAppDispatch();
  const [failed, setFailed] = useState<string | null>(null);
  const { kind, from, to } = rename;
  const answer = async (renamed: boolean): Promise<void> => {
    if (design === null) return;
    try {
      dispatch(designChanged(await api.answerRename(design.id, { from, to, renamed }, design.revision)));
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
