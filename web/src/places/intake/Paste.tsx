import { Button, Input } from 'antd';
import { useState } from 'react';

/** A table as it is copied from a spreadsheet. */
export function Paste({ onPasted, onLeave }: { onPasted: (text: string) => void; onLeave: () => void }) {
  const [text, setText] = useState('');
  return (
    <section className="section" aria-label="Paste a table">
      <label>
        The cells with their row of headers, as they are copied from a spreadsheet
        <Input.TextArea
          rows={8}
          value={text}
          placeholder={'Tag\tType\tModel\tRoom\nDT-001\tdesktop\tPetrel desktop\tChart room'}
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      <div className="bench-more">
        <Button type="primary" disabled={text.trim() === ''} onClick={() => onPasted(text)}>
          Read it
        </Button>
        <Button onClick={onLeave}>Leave it</Button>
      </div>
    </section>
  );
}
