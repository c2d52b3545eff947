import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
/** The kinds of files that can be brought in, with their columns. */
export function WhatGoesIn() {
  return (
    <section className="section">
      <div className="section-head">
        <h2>{t`What can be imported`}</h2>
      </div>
      <dl className="intake-forms terms">
        <dt>{t`Machines`}</dt>
        <dd className="breaks">
          <Trans>
            A table with a row of headers in any language. Needed: a tag, and a kind or a model. Also read:
            site, zone, dust, warmest air, altitude, hours a day, in service since, warranty until, host, last
            service and its level, limit.{' '}
            <span className="quiet">What it would change is shown before anything is stored.</span>
          </Trans>
        </dd>
        <dt>{t`Sensor logs`}</dt>
        <dd className="breaks">
          {t`What a monitoring program on a machine writes: one column a sensor, seconds apart. Steady half hours under load become readings.`}
        </dd>
        <dt>{t`Fleet document`}</dt>
        <dd className="breaks">
          <Trans>
            JSON: sites with zones, and the machines in them with their parts, limits and services.{' '}
            <span className="quiet">All of it or nothing is taken.</span>
          </Trans>
        </dd>
        <dt>{t`Readings`}</dt>
        <dd className="breaks">
          <Trans>
            <code>time,asset</code> must be there; and what was measured, in any order:{' '}
            <code>
              ambient_c, outlet_c, power_w, fan_rpm, fan_pct, fan1_rpm, clock_mhz, throttled, score, settings,
              workload
            </code>{' '}
            and a column for each part such as <code>cpu_c</code>, <code>core_c</code>, <code>memory_c</code>.{' '}
            <span className="quiet">Good lines are kept, bad ones are listed.</span>
          </Trans>
        </dd>
        <dt>{t`Services`}</dt>
        <dd className="breaks">
          <Trans>
            <code>date,asset,level</code>; a level is inspect, blow-out, dust-out, repaste, repad or fan-swap.
          </Trans>
        </dd>
      </dl>
    </section>
  );
}
