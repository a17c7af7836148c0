import { configureStore, createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { useDispatch, useSelector, useStore } from 'react-redux';
import { designReducer } from '../design/designSlice.js';
import { autosaveMiddleware } from '../design/autosave.js';
import { releasesReducer } from '../design/releasesSlice.js';
import { designsReducer } from '../home/designsSlice.js';
import { mocksReducer } from '../mock/mocksSlice.js';
import type { ColorScheme } from './theme/antTheme.js';
import { initialColorScheme, saveColorScheme } from './theme/colorScheme.js';

const look = createSlice({
  name: 'look',
  initialState: initialColorScheme,
  reducers: { lookChosen: (_state, { payload }: PayloadAction<ColorScheme>) => payload },
});

export const { lookChosen } = look.actions;

export const store = configureStore({
  reducer: {
    look: look.reducer,
    designs: designsReducer,
    design: designReducer,
    releases: releasesReducer,
    mocks: mocksReducer,
  },
  // Contracts are large and never changed in place: walking them after every keystroke would stall typing.
  middleware: (defaults) =>
    defaults({ immutableCheck: false, serializableCheck: false }).prepend(autosaveMiddleware.middleware),
});

saveColorScheme(store.getState().look);
store.subscribe(() => {
  const chosen = store.getState().look;
  if (document.documentElement.dataset['theme'] !== chosen) saveColorScheme(chosen);
});

export type RootState = ReturnType<typeof store.getState>;
export type AppDispatch = typeof store.dispatch;
export const useAppDispatch = useDispatch.withTypes<AppDispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();
export const useAppStore = useStore.withTypes<typeof store>();
