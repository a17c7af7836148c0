import { ConfigProvider } from 'antd';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { ArrangePage } from '../arrange/ArrangePage.js';
import { ContractPage } from '../contract/ContractPage.js';
import { HomePage } from '../home/HomePage.js';
import { IntakePage } from '../intake/IntakePage.js';
import { MockPage } from '../mock/MockPage.js';
import { ModelPage } from '../model/ModelPage.js';
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
      { index: true, element: <Navigate to="model" replace /> },
      { path: 'model', element: <ModelPage /> },
      { path: 'arrange', element: <ArrangePage /> },
      { path: 'contract', element: <ContractPage /> },
      { path: 'mock', element: <MockPage /> },
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
