import { ConfigProvider } from 'antd';
import { createBrowserRouter, Navigate, RouterProvider, type RouteObject } from 'react-router';
import { HomePage } from '../home/HomePage.js';
import { STAGES } from '../stages/index.js';
import { FailedPage } from './frame/FailedPage.js';
import { NotFoundPage } from './frame/NotFoundPage.js';
import { useAppSelector } from './store.js';
import { antTheme } from './theme/antTheme.js';

/** A page that is read when it is opened first. What fails in it leaves everything around it as it is. */
const page = (path: string, load: () => Promise<React.ComponentType>): RouteObject => ({
  path,
  lazy: async () => ({ Component: await load() }),
  ErrorBoundary: FailedPage,
  // Nothing is shown for the moment that it takes.
  HydrateFallback: () => null,
});

const router = createBrowserRouter([
  { path: '/', element: <HomePage />, ErrorBoundary: FailedPage },
  page('/intake', async () => (await import('../intake/IntakePage.js')).IntakePage),
  {
    ...page('/designs/:id', async () => (await import('./frame/DesignFrame.js')).DesignFrame),
    index: false,
    children: [
      { index: true, element: <Navigate to={STAGES[0]?.path ?? 'revisions'} replace /> },
      ...STAGES.map(({ path, load }) => page(path, load)),
      page('revisions', async () => (await import('../revisions/RevisionsPage.js')).RevisionsPage),
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
