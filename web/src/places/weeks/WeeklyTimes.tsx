import { t } from '@lingui/core/macro';
import { Button, Form, Input, Select } from 'antd';
import type { Schemas } from '../../api/client';
import { weekdayName, WEEKDAYS } from './weekdays';

type Times = Schemas['WeeklyTimeDto'];

/** Stretches of a week: one line each. */
export function WeeklyTimes({ name, label, none }: { name: string; label: string; none: string }) {
  return (
    <Form.Item label={label}>
      <Form.List name={name}>
        {(fields, { add, remove }) => (
          <div className="stacked">
            {fields.length === 0 && <span className="quiet">{none}</span>}
            {fields.map(({ key, name: at }) => (
              <div key={key} className="weeks-times">
                <Form.Item name={[at, 'day']} noStyle>
                  <Select
                    aria-label={t`Weekday`}
                    options={WEEKDAYS.map((day) => ({ value: day, label: weekdayName(day) }))}
                  />
                </Form.Item>
                <Form.Item name={[at, 'from']} noStyle>
                  <Input type="time" aria-label={t`From`} />
                </Form.Item>
                <Form.Item name={[at, 'to']} noStyle>
                  <Input type="time" aria-label={t`Until`} />
                </Form.Item>
                <Button type="text" onClick={() => remove(at)}>{t`Remove`}</Button>
              </div>
            ))}
            <div className="button-row">
              <Button
                onClick={() => add({ day: 'monday', from: '08:00', to: '16:00' })}
              >{t`Add a line`}</Button>
              {fields.length === 0 && (
                <Button onClick={() => workdays().forEach((time) => add(time))}>{t`Monday to Friday`}</Button>
              )}
            </div>
          </div>
        )}
      </Form.List>
    </Form.Item>
  );
}

/** The usual hours of a working week. */
export const workdays = (): Times[] =>
  WEEKDAYS.slice(0, 5).map((day) => ({ day, from: '08:00', to: '16:00' }));
