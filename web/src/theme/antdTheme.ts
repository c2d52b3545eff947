import { theme, type ThemeConfig } from 'antd';

/** Ant Design supplies the parts; paper, ink and type are ours. Action is ink, never a colour. */
export function antdTheme(dark: boolean): ThemeConfig {
  const ink = dark ? '#ece6dc' : '#2a2622';
  const paper = dark ? '#1d1a17' : '#f1ede6';
  const panel = dark ? '#26221e' : '#fbf9f6';
  const line = dark ? '#453e36' : '#d9d2c7';
  return {
    algorithm: dark ? theme.darkAlgorithm : theme.defaultAlgorithm,
    token: {
      colorPrimary: ink,
      colorInfo: ink,
      colorLink: ink,
      colorSuccess: ink,
      colorWarning: ink,
      colorText: ink,
      colorTextLightSolid: paper,
      colorTextPlaceholder: dark ? '#a89f92' : '#6d655b',
      colorTextDescription: dark ? '#a89f92' : '#6d655b',
      colorBgBase: paper,
      colorBgContainer: panel,
      colorBgElevated: panel,
      colorBgLayout: paper,
      colorBorder: dark ? '#6b6258' : '#b9b0a3',
      colorBorderSecondary: line,
      colorSplit: line,
      fontFamily: "'Archivo Variable', 'Helvetica Neue', Arial, sans-serif",
      fontFamilyCode: "'JetBrains Mono Variable', ui-monospace, monospace",
      borderRadius: 3,
      boxShadow: 'none',
      boxShadowSecondary: '0 8px 30px rgb(42 38 34 / 18%)',
      controlHeight: 34,
      // Without it the parts wait for the end of an animation that never runs, and stay hidden.
      motion: !matchMedia('(prefers-reduced-motion: reduce)').matches,
      motionDurationMid: '0.1s',
      motionDurationSlow: '0.15s',
    },
    components: {
      Button: { primaryShadow: 'none', defaultShadow: 'none', fontWeight: 600, defaultBorderColor: ink },
      Segmented: { itemSelectedBg: ink, itemSelectedColor: paper, trackBg: 'transparent' },
      Alert: { colorInfoBg: panel, colorInfoBorder: line, colorWarningBg: panel, colorWarningBorder: ink },
    },
  };
}
