import '@fontsource/ibm-plex-mono/latin-400.css';
import '@fontsource/ibm-plex-mono/latin-600.css';
import '@fontsource/ibm-plex-sans/latin-400.css';
import '@fontsource/ibm-plex-sans/latin-500.css';
import '@fontsource/ibm-plex-sans/latin-600.css';
import './app/theme/theme.css';
import './app/parts/parts.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { App } from './app/App.js';
import { createStore, lookChosen } from './app/store.js';
import { initialColorScheme, saveColorScheme } from './app/theme/colorScheme.js';
import { WorkerPort } from './app/workers/workerPort.js';
import type { DerivationProtocol } from './design/derivation/protocol.js';
import { DerivationService } from './design/derivation/service.js';
import { DerivationServiceContext } from './design/derivation/useDerivation.js';

const root = document.getElementById('root');
if (root === null) throw new Error('The page has no root element.');
const beginWorker = (): Worker =>
  new Worker(new URL('./design/derivation/derivation.worker.ts', import.meta.url), { type: 'module' });
const derivation = new DerivationService(() => new WorkerPort<DerivationProtocol>(beginWorker));
const store = createStore(derivation);
store.subscribe(() => {
  saveColorScheme(store.getState().look);
});
store.dispatch(lookChosen(initialColorScheme()));
createRoot(root).render(
  <StrictMode>
    <Provider store={store}>
      <DerivationServiceContext.Provider value={derivation}>
        <App />
      </DerivationServiceContext.Provider>
    </Provider>
  </StrictMode>,
);
