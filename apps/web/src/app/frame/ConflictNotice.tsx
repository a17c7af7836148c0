import { Button } from 'antd';
import { useState } from 'react';
import { designApi } from '../../design/designApi.js';
import { choicesMade, conflictOverruled, textEdited } from '../../design/documentSlice.js';
import { refusalText } from '../api/client.js';
import { useAppDispatch, useAppStore } from '../store.js';
import { Notice } from '../parts/Notice.js';

/** Two pages changed one design: nothing is overwritten until somebody chooses. */
export function ConflictNotice({ id }: { readonly id: string }): React.JSX.Element {
  const dispatch = useAppDispatch();
  const store = useAppStore();
  const [failed, setFailed] = useState<string | null>(null);
  const choose = async (theirs: boolean): Promise<void> => {
    try {
      const asked = designApi.endpoints.readDesign.initiate(id, { forceRefetch: true, subscribe: false });
      const design = await dispatch(asked).unwrap();
      dispatch(conflictOverruled(design));
      if (!theirs) return;
      dispatch(textEdited(design.text));
      dispatch(choicesMade(design.choices));
    } catch (error) {
      setFailed(refusalText(error));
    }
  };
  const copy = (): void => void navigator.clipboard.writeText(store.getState().document.text);
  return (
    <Notice>
      <span>Another page saved this design meanwhile. Your text is still here and not kept.</span>
      <Button onClick={() => void choose(false)}>Keep mine</Button>
      <Button onClick={() => void choose(true)}>Take theirs</Button>
      <Button onClick={copy}>Copy mine</Button>
      {failed !== null && <span className="wrong">{failed}</span>}
    </Notice>
  );
}
