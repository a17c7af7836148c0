import { ConfigProvider } from 'antd';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { HomePage } from '../home/HomePage.js';
import { IntakePage } from '../intake/IntakePage.js';
import { STAGES } from '../stages/index.js';
import { RevisionsPage } from '../revisions/RevisionsPage.js';
import { DesignFrame } from './frame/DesignFrame.js';
import { NotFoundPage } from './frame/NotFoundPage.js';
import { useAppSelector } from './store.js';
import { antTheme } from './theme/antTheme.js';

const router = createBrowserRouter([
  { path: '/', element: <HomePage /> },
  { path: '/intake', element: <IntakePage /> },
  {
    path: '/designs/:id',
    element: <DesignFrame />,
    children: [
      { index: true, element: <Navigate to={STAGES[0]?.path ?? 'revisions'} replace /> },
      ...STAGES.map(({ path, Page }) => ({ path, element: <Page /> })),
      { path: 'revisions', element: <RevisionsPage /> },
    ],
  },
  { path: '*', element: <NotFoundPage /> },
]);

export function App(): React.JSX.Element {
  const look = useAppSelector((state) => state.look);
  return (
    <ConfigProvider theme={antTheme(look)} componentSize="small">
      <RouterProvider router={router} />
    </ConfigProvider>
  );
}
