import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { Button } from 'antd';
import { lazy, Suspense, useState } from 'react';
import { Navigate, NavLink, Outlet, useLocation, useNavigate } from 'react-router';
import { useNews } from '../api/notices';
import { useHealth } from '../api/queries';
import { useSession } from '../api/session';
import { useHandScanner } from '../ui/useHandScanner';
import { InHand } from '../ui/InHand';
import { useKeys } from '../ui/keys';
import { useNarrow } from '../ui/useNarrow';
import { unseen } from '../words/notices';
import { usePreferences } from '../words/preferences';
import { SignIn } from './SignIn';

const KeyHelp = lazy(async () => ({ default: (await import('./KeyHelp')).KeyHelp }));
const OnThisDevice = lazy(async () => ({ default: (await import('./OnThisDevice')).OnThisDevice }));

/** Where one can go. On a phone the rare ones stand behind "More". */
const PLACES: readonly { to: string; name: string; rare?: boolean }[] = [
  { to: '/', name: t`Rounds` },
  { to: '/weeks', name: t`Weeks` },
  { to: '/halls', name: t`Halls` },
  { to: '/bench', name: t`Bench` },
  { to: '/stores', name: t`Stores`, rare: true },
  { to: '/proof', name: t`Proof`, rare: true },
  { to: '/log', name: t`Log book`, rare: true },
  { to: '/intake', name: t`Intake`, rare: true },
  { to: '/rules', name: t`House rules`, rare: true },
];

/** An owner sees what is theirs alone. */
const OWN_PAGES = ['/own', '/account', '/phone'];
const OWNERS = [{ to: '/own', name: t`Your machines`, rare: false }];

/** What is new stands apart from the places: it leads to them. */
const NEWS = { to: '/notices', name: t`What is new` };

/** The frame around every place: where one can go, and what holds everywhere. */
export function Shell() {
  // Null until it is first asked for; then it stays, so that the focus goes back where it came from.
  const [help, setHelp] = useState<boolean | null>(null);
  const [settings, setSettings] = useState<boolean | null>(null);
  const { unit, reader, seenNotice } = usePreferences();
  const session = useSession();
  const isOut = session !== null && !session.solo && session.account === null;
  const news = useNews(reader, !isOut && session?.role !== 'owner');
  const fresh = unseen(news.data?.notices ?? [], seenNotice);
  const narrow = useNarrow(760);
  const isOwner = session?.role === 'owner';
  const places = isOut ? [] : isOwner ? OWNERS : PLACES;
  const health = useHealth();
  const navigate = useNavigate();
  const location = useLocation();

  const own = session?.name ? [{ to: '/account', name: session.name }] : [];

  useHandScanner();

  useKeys({
    '?': () => setHelp(true),
    ...Object.fromEntries(PLACES.map((place, i) => [String(i + 1), () => void navigate(place.to)])),
  });

  return (
    <div className="shell">
      <a className="skip" href="#main">
        {t`To the content`}
      </a>
      <nav className="shell-nav" aria-label={t`Places`}>
        <NavLink to="/" className="shell-name">
          Pyrometron
        </NavLink>
        {places.map((place) => (
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
          {t`More`}
        </button>
        <div className="shell-foot">
          {session?.name && (
            <NavLink to="/account" className="shell-news" translate="no">
              {session.name}
            </NavLink>
          )}
          {!isOut && !isOwner && (
            <NavLink to={NEWS.to} className="shell-news">
              {fresh > 0 ? t`New: ${fresh}` : NEWS.name}
            </NavLink>
          )}
          {health.data?.data === 'demo' && <span className="demo-note">{t`Demo data`}</span>}
          <Button type="text" size="small" onClick={() => setSettings(true)}>
            {t`°${unit} · look`}
          </Button>
          <Button type="text" size="small" onClick={() => setHelp(true)}>
            <Trans>
              <kbd>?</kbd> keys
            </Trans>
          </Button>
        </div>
      </nav>
      <div className="shell-body">
        {!isOut && !isOwner && <InHand />}
        <main className="shell-main" id="main" key={location.pathname.split('/')[1]}>
          {isOut ? (
            <SignIn />
          ) : isOwner && !OWN_PAGES.includes(location.pathname) ? (
            <Navigate to="/own" replace />
          ) : (
            <Outlet />
          )}
        </main>
      </div>
      <Suspense>
        {help !== null && <KeyHelp open={help} onClose={() => setHelp(false)} places={PLACES} />}
        {settings !== null && (
          <OnThisDevice
            open={settings}
            onClose={() => setSettings(false)}
            version={health.data?.version}
            places={narrow ? (isOwner ? own : [...own, NEWS, ...PLACES.filter((p) => p.rare)]) : []}
          />
        )}
      </Suspense>
    </div>
  );
}
