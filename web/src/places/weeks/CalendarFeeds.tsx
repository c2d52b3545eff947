import { t } from '@lingui/core/macro';
import { Button, Input, Modal, Select } from 'antd';
import { useState } from 'react';
import { useZones } from '../../api/queries';
import { useSession } from '../../api/session';
import type { Person } from './board';

/** Addresses under which calendars find the plan: of everybody, of one person, of one zone. */
export function CalendarFeeds({ people, onClose }: { people: readonly Person[]; onClose: () => void }) {
  const zones = useZones().data ?? [];
  const [whose, setWhose] = useState('');
  const solo = useSession()?.solo !== false;
  const path = `/api/v1/calendar.ics${whose}`;
  const address = new URL(solo ? path : `${path}${whose ? '&' : '?'}key=…`, window.location.href).href;
  return (
    <Modal
      title={t`The plan in a calendar`}
      open
      onCancel={onClose}
      footer={
        <>
          <Button onClick={() => void navigator.clipboard.writeText(address)}>{t`Copy the address`}</Button>
          <a href={path} download="pyrometron.ics">
            <Button type="primary">{t`Download`}</Button>
          </a>
        </>
      }
    >
      <p className="quiet small">
        {t`A calendar that subscribes to the address follows the plan: what moves keeps its entry, what is taken out is cancelled. `}
        {solo
          ? t`Only calendars on this machine reach it; elsewhere take the file along.`
          : t`A calendar cannot sign in: whoever keeps the house gives you a key for calendars, which goes to the end of the address.`}
      </p>
      <Select
        aria-label={t`Whose`}
        className="full"
        value={whose}
        onChange={setWhose}
        options={[
          { value: '', label: t`The whole house: plan and due days` },
          ...people.map((p) => ({
            value: `?person=${p.code}`,
            label: t`${p.name}: what the plan gives them`,
          })),
          ...zones.map((z) => ({ value: `?zone=${z.code}`, label: t`${z.name}: plan and due days` })),
        ]}
      />
      <Input aria-label={t`Address`} readOnly value={address} className="apart-small figures" />
    </Modal>
  );
}
