import { theme, type ThemeConfig } from 'antd';
import { DARK, LIGHT } from './tokens';

/** Ant Design supplies the parts; paper, ink and type are ours. Action is ink, never a colour. */
export function antdTheme(dark: boolean): ThemeConfig {
  const { ink, paper, panel, line, quiet, edge } = dark ? DARK : LIGHT;
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
      colorTextPlaceholder: quiet,
      colorTextDescription: quiet,
      colorBgBase: paper,
      colorBgContainer: panel,
      colorBgElevated: panel,
      colorBgLayout: paper,
      colorBorder: edge,
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
      Switch: { trackHeight: 24, handleSize: 20 },
      Segmented: { itemSelectedBg: ink, itemSelectedColor: paper, trackBg: 'transparent' },
      Alert: { colorInfoBg: panel, colorInfoBorder: line, colorWarningBg: panel, colorWarningBorder: ink },
    },
  };
}
