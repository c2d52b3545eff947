import { t } from '@lingui/core/macro';
import { Input } from 'antd';
import { useState } from 'react';
import { useSession } from '../../api/session';

/** Who works on this device: written beside what is done here. */
export function Name({ onNamed }: { onNamed?: (name: string) => void }) {
  const [name, setName] = useState(() => localStorage.getItem('pyrometron.name') ?? '');
  const account = useSession();
  // Who signed in is who works here.
  if (account?.name) return <span className="small">{t`Works here: ${account.name}`}</span>;
  return (
    <label className="small">
      {t`Works here:`}{' '}
      <Input
        style={{ width: 150 }}
        value={name}
        maxLength={60}
        placeholder={t`your name`}
        onChange={(e) => {
          setName(e.target.value);
          localStorage.setItem('pyrometron.name', e.target.value.trim());
        }}
        onBlur={() => onNamed?.(name.trim())}
        onPressEnter={() => onNamed?.(name.trim())}
      />
    </label>
  );
}
