import { plural, t } from '@lingui/core/macro';
import { Button, Input, Modal, Select } from 'antd';
import { useInfiniteQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { capital, instant, kelvin, partName, useTemperature } from '../../words/format';
import { Refusal } from '../../ui/Refusal';
import { AskReason } from '../../ui/AskReason';
import { PlainTable } from '../../ui/PlainTable';

type Entry = Schemas['ReadingEntry'];

const PAGE = 25;

/** The newest readings, where a wrong one can be corrected or voided. */
export function Readings({ tag, parts }: { tag: string; parts: readonly string[] }) {
  const { exact } = useTemperature();
  const [voiding, setVoiding] = useState<Entry | null>(null);
  const [correcting, setCorrecting] = useState<Entry | null>(null);
  const readings = useInfiniteQuery({
    queryKey: ['readings', tag],
    initialPageParam: null as string | null,
    queryFn: ({ pageParam }) =>
      unwrap(
        api.GET('/api/v1/assets/{tag}/readings', {
          params: { path: { tag }, query: { count: PAGE, ...(pageParam ? { before: pageParam } : {}) } },
        }),
      ),
    getNextPageParam: (last) => (last.length === PAGE ? last[last.length - 1]!.at : undefined),
  });
  const write = useWrite((input: { at: string; voided: boolean; reason: string }) =>
    unwrap(api.POST('/api/v1/assets/{tag}/readings/void', { params: { path: { tag } }, body: input })),
  );
  const rows = readings.data?.pages.flat() ?? [];
  const number = (value: number | null, unit: string) =>
    value === null ? '–' : `${String(Math.round(value * 10) / 10)} ${unit}`;
  return (
    <section className="section" aria-label={t`Readings`}>
      <div className="section-head">
        <h2>{t`Newest readings`}</h2>
      </div>
      {readings.isError && <Refusal error={readings.error} />}
      {readings.isSuccess && rows.length === 0 && (
        <p className="quiet">{t`No readings yet. Bring some in at Intake.`}</p>
      )}
      {rows.length > 0 && (
        <div className="scroll-x">
          <PlainTable
            head={
              <>
                <th>{t`When`}</th>
                <th>{t`load · settings`}</th>
                <th className="num">{t`air`}</th>
                {parts.map((p) => (
                  <th className="num" key={p}>
                    {partName(p)}
                  </th>
                ))}
                <th className="num">{t`power`}</th>
                <th className="num">{t`fan`}</th>
                <th />
              </>
            }
          >
            {rows.map((r) => (
              <tr key={r.at} className={r.amended === 2 ? 'struck' : undefined}>
                <td>
                  {instant(r.at)}
                  {r.samples !== null && (
                    <span className="small quiet block">
                      {t`median of ${plural(r.samples, { one: '# sample', other: '# samples' })}`}
                      {r.spreadKelvin !== null && t`, spread ${kelvin(r.spreadKelvin)}`}
                    </span>
                  )}
                </td>
                <td>
                  {r.workload ?? '–'} · {r.settings ?? '–'}
                  {r.amended === 1 && <span className="quiet"> {t`(corrected)`}</span>}
                </td>
                <td className="num">{r.ambientC === null ? '–' : exact(r.ambientC)}</td>
                {r.partsC.map((c, i) => (
                  <td className="num" key={parts[i]}>
                    {c === null ? '–' : exact(c)}
                  </td>
                ))}
                <td className="num">{number(r.powerW, 'W')}</td>
                <td className="num">
                  {r.fanRpm !== null ? number(r.fanRpm, t`rpm`) : number(r.fanPct, '%')}
                </td>
                <td className="nowrap to-the-right">
                  <Button size="small" type="text" onClick={() => setCorrecting(r)}>
                    {t`Correct`}
                  </Button>
                  <Button
                    size="small"
                    type="text"
                    onClick={() =>
                      r.amended === 2
                        ? write.mutate({ at: r.at, voided: false, reason: 'restored' })
                        : setVoiding(r)
                    }
                  >
                    {r.amended === 2 ? t`Restore` : t`Strike out`}
                  </Button>
                </td>
              </tr>
            ))}
          </PlainTable>
        </div>
      )}
      {readings.hasNextPage && (
        <Button
          className="apart-small"
          loading={readings.isFetchingNextPage}
          onClick={() => void readings.fetchNextPage()}
        >
          {t`Older ones`}
        </Button>
      )}
      {voiding && (
        <AskReason
          title={t`Strike out the reading of ${instant(voiding.at)}`}
          text={t`It stays, struck through, and the judgement leaves it out.`}
          busy={write.isPending}
          confirm={t`Strike out`}
          onClose={() => setVoiding(null)}
          onReason={(reason) => write.mutateAsync({ at: voiding.at, voided: true, reason })}
        />
      )}
      {correcting && (
        <Correct tag={tag} parts={parts} entry={correcting} onClose={() => setCorrecting(null)} />
      )}
    </section>
  );
}

function Correct({
  tag,
  parts,
  entry,
  onClose,
}: {
  tag: string;
  parts: readonly string[];
  entry: Entry;
  onClose: () => void;
}) {
  const [column, setColumn] = useState('ambient_c');
  const [value, setValue] = useState('');
  const [reason, setReason] = useState('');
  const { unit, toCelsius } = useTemperature();
  const typed = value.trim() === '' ? null : Number(value.trim().replace(',', '.'));
  const right =
    typed !== null && (column.endsWith('_c') || parts.includes(column)) ? toCelsius(typed) : typed;
  const write = useWrite(() =>
    unwrap(
      api.POST('/api/v1/assets/{tag}/readings/correct', {
        params: { path: { tag } },
        body: {
          at: entry.at,
          column,
          value: right,
          reason,
        },
      }),
    ),
  );
  const wrong = value.trim() !== '' && !Number.isFinite(typed);
  return (
    <Modal
      title={t`Correct the reading of ${instant(entry.at)}`}
      open
      onCancel={onClose}
      okText={t`Correct`}
      confirmLoading={write.isPending}
      okButtonProps={{ disabled: wrong || reason.trim() === '' }}
      onOk={() => void write.mutateAsync(undefined).then(onClose, () => undefined)}
    >
      {write.isError && <Refusal error={write.error} />}
      <p className="quiet">{t`The number as it came in is kept in the history.`}</p>
      <Select
        aria-label={t`What to correct`}
        value={column}
        onChange={setColumn}
        className="full before-more"
        options={[
          { value: 'ambient_c', label: t`Air, °${unit}` },
          ...parts.map((p) => ({ value: p, label: `${capital(partName(p))}, °${unit}` })),
          { value: 'power_w', label: t`Power, W` },
          { value: 'fan_rpm', label: t`Fan, rpm` },
          { value: 'fan_pct', label: t`Fan, %` },
        ]}
      />
      <label>
        {t`Right value (empty: was not measured)`}
        <Input
          value={value}
          inputMode="decimal"
          status={wrong ? 'warning' : ''}
          onChange={(e) => setValue(e.target.value)}
        />
      </label>
      <p />
      <label>
        {t`Why?`}
        <Input value={reason} maxLength={500} onChange={(e) => setReason(e.target.value)} />
      </label>
    </Modal>
  );
}
