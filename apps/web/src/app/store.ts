import { configureStore, createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { setupListeners } from '@reduxjs/toolkit/query';
import { useDispatch, useSelector, useStore } from 'react-redux';
import { autosaveMiddleware } from '../design/autosave.js';
import { derivationMiddleware } from '../design/derivation/derivationMiddleware.js';
import type { DerivationService } from '../design/derivation/service.js';
import { derivedReducer } from '../design/derivedSlice.js';
import { documentReducer } from '../design/documentSlice.js';
import { savingReducer } from '../design/savingSlice.js';
import { viewReducer } from '../design/viewSlice.js';
import { recordEditsReducer } from '../mock/recordEditsSlice.js';
import { serverApi } from './api/serverApi.js';
import type { ColorScheme } from './theme/antTheme.js';

const look = createSlice({
  name: 'look',
  initialState: (): ColorScheme => 'light',
  reducers: { lookChosen: (_state, { payload }: PayloadAction<ColorScheme>) => payload },
});

export const { lookChosen } = look.actions;

const reducer = {
  look: look.reducer,
  document: documentReducer,
  saving: savingReducer,
  derived: derivedReducer,
  view: viewReducer,
  recordEdits: recordEditsReducer,
  [serverApi.reducerPath]: serverApi.reducer,
};

/** The state of the page, which derives by a service and saves by itself. */
export function createStore(derivation: Pick<DerivationService, 'derive'>) {
  const store = configureStore({
    reducer,
    // Contracts are large and never changed in place: walking them after every keystroke would stall typing.
    middleware: (defaults) =>
      defaults({ immutableCheck: false, serializableCheck: false })
        .prepend(autosaveMiddleware(), derivationMiddleware(derivation))
        .concat(serverApi.middleware),
  });
  setupListeners(store.dispatch);
  return store;
}

type Store = ReturnType<typeof createStore>;
export type RootState = ReturnType<Store['getState']>;
export type AppDispatch = Store['dispatch'];
export const useAppDispatch = useDispatch.withTypes<AppDispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();
export const useAppStore = useStore.withTypes<Store>();
