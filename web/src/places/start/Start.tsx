import { t } from '@lingui/core/macro';
import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { useHealth, useMachines } from '../../api/queries';
import { AddMachines } from '../../ui/entry/AddMachines';
import { usePageTitle } from '../../ui/usePageTitle';
import { OpenDemo } from './OpenDemo';
import './start.css';

/** The first hour: what there is decides the way in. */
export function Start() {
  usePageTitle(t`First steps`);
  const own = useHealth().data?.data !== 'demo';
  const machines = useMachines();
  const [adding, setAdding] = useState(false);
  return (
    <div className="page start">
      <h1>
        {machines.data?.length ? '' : t`No machines yet. `}
        {t`What do you have?`}
      </h1>
      <dl>
        <dt>{t`A list`}</dt>
        <dd>
          {t`A spreadsheet or any other list of machines, under whatever headers: paste it, and see what it would add before anything is stored.`}
          <Link to="/intake">
            <Button type="primary">{t`Bring in a list`}</Button>
          </Link>
        </dd>
        <dt>{t`Files of a monitoring program`}</dt>
        <dd>
          {t`A fleet document, readings, services, the sensor logs that programs write: drop them together. A log needs its machine to be there first.`}
          <Link to="/intake">
            <Button>{t`Bring in files`}</Button>
          </Link>
        </dd>
        <dt>{t`Nothing but the machines`}</dt>
        <dd>
          {t`Add the first one by hand, or twenty alike with running tags; then walk round with a phone and type what each shows under load.`}
          <Button onClick={() => setAdding(true)}>{t`Add machines`}</Button>
        </dd>
        {own && (
          <>
            <dt>{t`Nothing yet: just looking`}</dt>
            <dd>
              {t`The demo: an invented institute on a coast with its machines, readings and jobs. It lies in a database of its own; nothing of it mixes with yours.`}
              <OpenDemo />
            </dd>
          </>
        )}
      </dl>
      <p className="quiet">
        {t`From the first machine on, Rounds says what is due by the calendar; every reading and every run makes it surer. All that was brought in can be undone on Intake.`}
      </p>
      {adding && <AddMachines onClose={() => setAdding(false)} />}
    </div>
  );
}
