import { Button, Modal, Segmented } from 'antd';
import { useEffect, useState } from 'react';
import { NavLink, Outlet, useLocation, useNavigate } from 'react-router';
import { useHealth } from '../api/queries';
import { useHandScanner } from '../ui/useHandScanner';
import { InHand } from '../ui/InHand';
import { KeyHelp } from './KeyHelp';
import { isTyping } from '../ui/keys';
import type { TemperatureUnit } from '../words/format';
import { setPreferences, usePreferences, type Preferences } from '../words/preferences';

const PLACES = [
  { to: '/', name: 'Rounds', key: 'r' },
  { to: '/halls', name: 'Halls', key: 'h' },
  { to: '/bench', name: 'Bench', key: 'b' },
  { to: '/log', name: 'Log book', key: 'l' },
  { to: '/intake', name: 'Intake', key: 'i' },
  { to: '/rules', name: 'House rules', key: 'u' },
] as const;

/** The frame around every place: where one can go, and what holds everywhere. */
export function Shell() {
  const [help, setHelp] = useState(false);
  const [settings, setSettings] = useState(false);
  const { unit, theme } = usePreferences();
  const health = useHealth();
  const navigate = useNavigate();
  const location = useLocation();

  useHandScanner();

  useEffect(() => {
    let leader = 0;
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event)) return;
      if (event.key === '?') setHelp(true);
      else if (event.key === 'g') leader = Date.now();
      else if (Date.now() - leader < 1500) {
        const place = PLACES.find((p) => p.key === event.key);
        leader = 0;
        if (place) void navigate(place.to);
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [navigate]);

  return (
    <div className="shell">
      <a className="skip" href="#main">
        To the content
      </a>
      <nav className="shell-nav" aria-label="Places">
        <NavLink to="/" className="shell-name">
          Pyrometron
        </NavLink>
        {PLACES.map((place) => (
          <NavLink key={place.to} to={place.to} end={place.to === '/'} className="place">
            {place.name}
          </NavLink>
        ))}
        <div className="shell-foot">
          {health.data?.data === 'demo' && <span className="demo-note">Demo data</span>}
          <Button type="text" size="small" onClick={() => setSettings(true)}>
            °{unit} · look
          </Button>
          <Button type="text" size="small" onClick={() => setHelp(true)}>
            <kbd>?</kbd> keys
          </Button>
        </div>
      </nav>
      <div className="shell-body">
        <InHand />
        <main className="shell-main" id="main" key={location.pathname.split('/')[1]}>
          <Outlet />
        </main>
      </div>
      <KeyHelp open={help} onClose={() => setHelp(false)} places={PLACES} />
      <Modal
        title="On this device"
        open={settings}
        onCancel={() => setSettings(false)}
        footer={null}
        width={360}
      >
        <p className="quiet">Temperatures</p>
        <Segmented<TemperatureUnit>
          aria-label="Temperatures in"
          value={unit}
          onChange={(value) => setPreferences({ unit: value })}
          options={[
            { label: '°C', value: 'C' },
            { label: '°F', value: 'F' },
          ]}
        />
        <p className="quiet" style={{ marginTop: 16 }}>
          Light
        </p>
        <Segmented<Preferences['theme']>
          aria-label="Light or dark"
          value={theme}
          onChange={(value) => setPreferences({ theme: value })}
          options={[
            { label: 'Day', value: 'light' },
            { label: 'Night shift', value: 'dark' },
            { label: 'As the device', value: 'system' },
          ]}
        />
        <p className="quiet small" style={{ marginTop: 16 }}>
          Version {health.data?.version ?? '…'}. Differences are always given in kelvin.
        </p>
      </Modal>
    </div>
  );
}
