import { Button, Checkbox, Modal, Segmented } from 'antd';
import { useState } from 'react';
import { Link, NavLink, Outlet, useLocation, useNavigate } from 'react-router';
import { useHealth } from '../api/queries';
import { useHandScanner } from '../ui/useHandScanner';
import { InHand } from '../ui/InHand';
import { KeyHelp } from './KeyHelp';
import { useKeys } from '../ui/keys';
import { useNarrow } from '../ui/useNarrow';
import type { TemperatureUnit } from '../words/format';
import { setPreferences, usePreferences, type Preferences } from '../words/preferences';

/** Where one can go. On a phone the rare ones stand behind "More". */
const PLACES: readonly { to: string; name: string; rare?: boolean }[] = [
  { to: '/', name: 'Rounds' },
  { to: '/halls', name: 'Halls' },
  { to: '/bench', name: 'Bench' },
  { to: '/log', name: 'Log book', rare: true },
  { to: '/intake', name: 'Intake' },
  { to: '/rules', name: 'House rules', rare: true },
];

/** The frame around every place: where one can go, and what holds everywhere. */
export function Shell() {
  const [help, setHelp] = useState(false);
  const [settings, setSettings] = useState(false);
  const { unit, theme, keys } = usePreferences();
  const narrow = useNarrow(760);
  const health = useHealth();
  const navigate = useNavigate();
  const location = useLocation();

  useHandScanner();

  useKeys({
    '?': () => setHelp(true),
    ...Object.fromEntries(PLACES.map((place, i) => [String(i + 1), () => void navigate(place.to)])),
  });

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
          <NavLink
            key={place.to}
            to={place.to}
            end={place.to === '/'}
            className={place.rare ? 'place rare' : 'place'}
          >
            {place.name}
          </NavLink>
        ))}
        <button type="button" className="place more" onClick={() => setSettings(true)}>
          More
        </button>
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
        title={narrow ? 'More' : 'On this device'}
        open={settings}
        onCancel={() => setSettings(false)}
        footer={null}
        width={360}
      >
        {narrow && (
          <ul className="shell-more">
            {[...PLACES.filter((p) => p.rare), { to: '/start', name: 'First steps' }].map((place) => (
              <li key={place.to}>
                <Link to={place.to} onClick={() => setSettings(false)}>
                  {place.name}
                </Link>
              </li>
            ))}
          </ul>
        )}
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
        <p className="quiet" style={{ marginTop: 16 }}>
          <Checkbox checked={keys} onChange={(e) => setPreferences({ keys: e.target.checked })}>
            Letters and digits are keys
          </Checkbox>
        </p>
        <p className="quiet small" style={{ marginTop: 16 }}>
          Version {health.data?.version ?? '…'}.
        </p>
      </Modal>
    </div>
  );
}
