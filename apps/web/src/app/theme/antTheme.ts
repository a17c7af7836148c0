import { theme, type ThemeConfig } from 'antd';

export type ColorScheme = 'light' | 'dark';

const TOKENS: Readonly<Record<ColorScheme, NonNullable<ThemeConfig['token']>>> = {
  light: {
    colorPrimary: '#0a5a6a',
    colorInfo: '#0a5a6a',
    colorLink: '#0a5a6a',
    colorError: '#b3261e',
    colorWarning: '#d99a00',
    colorSuccess: '#2f7a4d',
    colorText: '#14212b',
    colorTextSecondary: '#5b6b78',
    colorTextPlaceholder: '#61717d',
    colorBorder: '#b9c5cd',
    colorBorderSecondary: '#d3dbe1',
    colorBgLayout: '#f3f5f6',
    colorBgContainer: '#ffffff',
    colorBgElevated: '#ffffff',
  },
  dark: {
    colorPrimary: '#63bccb',
    colorInfo: '#63bccb',
    colorLink: '#63bccb',
    colorError: '#f2887f',
    colorWarning: '#e2b03a',
    colorSuccess: '#73c291',
    colorText: '#e4ebef',
    colorTextSecondary: '#9aabb7',
    colorTextPlaceholder: '#8798a4',
    colorBorder: '#3d4f5b',
    colorBorderSecondary: '#2c3b45',
    colorBgLayout: '#111a20',
    colorBgContainer: '#172229',
    colorBgElevated: '#1c2931',
    colorTextLightSolid: '#08242b',
  },
};

/** Whether the system asks for nothing to move (Media Queries 5, prefers-reduced-motion). */
const stillness = window.matchMedia('(prefers-reduced-motion: reduce)');

/** Our tokens for the components: square, flat, dense, without motion that delays, or without any. */
export const antTheme = (look: ColorScheme): ThemeConfig => ({
  algorithm: look === 'dark' ? theme.darkAlgorithm : theme.defaultAlgorithm,
  token: {
    ...TOKENS[look],
    fontFamily: "'IBM Plex Sans', sans-serif",
    fontFamilyCode: "'IBM Plex Mono', monospace",
    fontSize: 13,
    fontSizeSM: 12,
    lineHeight: 1.4,
    controlHeight: 26,
    controlHeightSM: 22,
    paddingXS: 6,
    borderRadius: 4,
    borderRadiusLG: 4,
    borderRadiusSM: 3,
    boxShadow: 'none',
    boxShadowSecondary: '0 0 0 1px rgba(20, 33, 43, 0.18)',
    motion: !stillness.matches,
    motionDurationFast: '0.05s',
    motionDurationMid: '0.08s',
    motionDurationSlow: '0.1s',
    wireframe: false,
  },
  components: {
    Button: {
      primaryShadow: 'none',
      defaultShadow: 'none',
      fontWeight: 500,
      paddingInlineSM: 9,
      contentFontSizeSM: 13,
    },
    Input: { activeShadow: 'none', inputFontSizeSM: 13 },
    Splitter: { splitBarSize: 1, splitTriggerSize: 7 },
  },
});
