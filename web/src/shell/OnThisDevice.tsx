import { t } from '@lingui/core/macro';
import { Checkbox, Modal, Segmented, Select } from 'antd';
import { Link } from 'react-router';
import type { TemperatureUnit } from '../words/format';
import { chooseLanguage, language, LANGUAGES } from '../words/language';
import { setPreferences, usePreferences, type Preferences } from '../words/preferences';

/** The languages to choose from: the one of the tests is not one. */
const CHOICES = LANGUAGES.filter((tag) => tag !== 'en-XA');

/** A language by its own name. */
const nameOf = (tag: string): string => new Intl.DisplayNames(tag, { type: 'language' }).of(tag) ?? tag;

/** What is chosen for this device: units, look, keys, language; on a phone also the places that are seldom gone to. */
export function OnThisDevice({
  open,
  onClose,
  version,
  places,
}: {
  open: boolean;
  onClose: () => void;
  version: string | undefined;
  places: readonly { to: string; name: string }[];
}) {
  const { unit, theme, keys } = usePreferences();
  return (
    <Modal
      title={places.length > 0 ? t`More` : t`On this device`}
      open={open}
      onCancel={onClose}
      footer={null}
      width={360}
    >
      {places.length > 0 && (
        <ul className="shell-more">
          {[...places, { to: '/start', name: t`First steps` }].map((place) => (
            <li key={place.to}>
              <Link to={place.to} onClick={onClose}>
                {place.name}
              </Link>
            </li>
          ))}
        </ul>
      )}
      <p className="quiet">{t`Temperatures`}</p>
      <Segmented<TemperatureUnit>
        aria-label={t`Temperatures in`}
        value={unit}
        onChange={(value) => setPreferences({ unit: value })}
        options={[
          { label: '°C', value: 'C' },
          { label: '°F', value: 'F' },
        ]}
      />
      <p className="quiet device-choice">{t`Light`}</p>
      <Segmented<Preferences['theme']>
        aria-label={t`Light or dark`}
        value={theme}
        onChange={(value) => setPreferences({ theme: value })}
        options={[
          { label: t`Day`, value: 'light' },
          { label: t`Night shift`, value: 'dark' },
          { label: t`As the device`, value: 'system' },
        ]}
      />
      <p className="quiet device-choice">
        <Checkbox checked={keys} onChange={(e) => setPreferences({ keys: e.target.checked })}>
          {t`Letters and digits are keys`}
        </Checkbox>
      </p>
      {CHOICES.length > 1 && (
        <>
          <p className="quiet device-choice">{t`Language`}</p>
          <Select
            aria-label={t`Language`}
            value={language()}
            onChange={chooseLanguage}
            options={CHOICES.map((value) => ({ value, label: nameOf(value) }))}
          />
        </>
      )}
      <p className="quiet small device-choice">{t`Version ${version ?? '…'}.`}</p>
    </Modal>
  );
}
