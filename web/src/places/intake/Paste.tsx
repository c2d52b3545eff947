import { t } from '@lingui/core/macro';
import { Button, Input } from 'antd';
import { useState } from 'react';

/** A table as it is copied from a spreadsheet. */
export function Paste({ onPasted, onLeave }: { onPasted: (text: string) => void; onLeave: () => void }) {
  const [text, setText] = useState('');
  return (
    <section className="section" aria-label={t`Paste a table`}>
      <label>
        {t`The cells with their row of headers, as they are copied from a spreadsheet`}
        <Input.TextArea
          rows={8}
          value={text}
          placeholder={`Tag	Type	Model	Room
DT-001	desktop	Petrel desktop	Chart room`}
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      <div className="bench-more">
        <Button type="primary" disabled={text.trim() === ''} onClick={() => onPasted(text)}>
          {t`Read it`}
        </Button>
        <Button onClick={onLeave}>{t`Leave it`}</Button>
      </div>
    </section>
  );
}
