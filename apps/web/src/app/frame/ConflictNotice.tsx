import { Button } from 'antd';
import { useState } from 'react';
import { mineKept } from '../../design/designSlice.js';
import { api, refusalText } from '../api/client.js';
import type { Design } from '@isomeros/api';
import { useAppDispatch } from '../store.js';

interface Props {
  readonly id: string;
  readonly text: string;
  readonly onTheirs: (design: Design) => void;
}

/** Two pages changed one design: nothing is overwritten until somebody chooses. */
export function ConflictNotice({ id, text, onTheirs }: Props): React.JSX.Element {
  const dispatch = useAppDispatch();
  const [failed, setFailed] = useState<string | null>(null);
  const choose = async (theirs: boolean): Promise<void> => {
    try {
      const design = await api.readDesign(id);
      dispatch(mineKept(design));
      if (theirs) onTheirs(design);
    } catch (error) {
      setFailed(refusalText(error));
    }
  };
  return (
    <div className="notice bad" role="alert">
      <span>Another page saved this design meanwhile. Your text is still here and not kept.</span>
      <Button onClick={() => void choose(false)}>Keep mine</Button>
      <Button onClick={() => void choose(true)}>Take theirs</Button>
      <Button onClick={() => void navigator.clipboard.writeText(text)}>Copy mine</Button>
      {failed !== null && <span className="wrong">{failed}</span>}
    </div>
  );
}
