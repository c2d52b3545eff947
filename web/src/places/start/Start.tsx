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
  usePageTitle('First steps');
  const own = useHealth().data?.data !== 'demo';
  const machines = useMachines();
  const [adding, setAdding] = useState(false);
  return (
    <div className="page start">
      <h1>{machines.data?.length ? '' : 'No machines yet. '}What do you have?</h1>
      <dl>
        <dt>A list</dt>
        <dd>
          A spreadsheet or any other list of machines, under whatever headers: paste it, and see what it would
          add before anything is stored.
          <Link to="/intake">
            <Button type="primary">Bring in a list</Button>
          </Link>
        </dd>
        <dt>Files of a monitoring program</dt>
        <dd>
          A fleet document, readings, services, the sensor logs that programs write: drop them together. A log
          needs its machine to be there first.
          <Link to="/intake">
            <Button>Bring in files</Button>
          </Link>
        </dd>
        <dt>Nothing but the machines</dt>
        <dd>
          Add the first one by hand, or twenty alike with running tags; then walk round with a phone and type
          what each shows under load.
          <Button onClick={() => setAdding(true)}>Add machines</Button>
        </dd>
        {own && (
          <>
            <dt>Nothing yet: just looking</dt>
            <dd>
              The demo: an invented institute on a coast with its machines, readings and jobs. It lies in a
              database of its own; nothing of it mixes with yours.
              <OpenDemo />
            </dd>
          </>
        )}
      </dl>
      <p className="quiet">
        From the first machine on, Rounds says what is due by the calendar; every reading and every run makes
        it surer. All that was brought in can be undone on Intake.
      </p>
      {adding && <AddMachines onClose={() => setAdding(false)} />}
    </div>
  );
}
