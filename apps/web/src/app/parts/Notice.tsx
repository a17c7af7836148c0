import { Alert } from 'antd';
import type { ReactNode } from 'react';

interface Props {
  /** Something is wrong, or only worth knowing. */
  readonly kind?: 'wrong' | 'known';
  readonly children: ReactNode;
}

/** What has to be said before anything else: read out at once where something is wrong, else when there is time. */
export function Notice({ kind = 'wrong', children }: Props): React.JSX.Element {
  const isWrong = kind === 'wrong';
  return (
    <Alert
      banner
      className={isWrong ? 'notice-frame wrong' : 'notice-frame'}
      showIcon={false}
      type={isWrong ? 'error' : 'info'}
      role={isWrong ? 'alert' : 'status'}
      title={<div className="notice">{children}</div>}
    />
  );
}
