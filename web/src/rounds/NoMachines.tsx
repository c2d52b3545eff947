import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { AddMachines } from '../entry/AddMachines';
import './rounds.css';

/** The first hour: what there is decides the way in. */
export function NoMachines() {
  const [adding, setAdding] = useState(false);
  return (
    <div className="page start">
      <h1>No machines yet. What do you have?</h1>
      <dl>
        <dt>A list</dt>
        <dd>
          A spreadsheet or any list of machines, with whatever headers it has: paste it, and see what would
          come of it before anything does.
          <Link to="/intake">
            <Button type="primary">Bring in a list</Button>
          </Link>
        </dd>
        <dt>Files of a monitoring</dt>
        <dd>
          A fleet document, readings, services, the sensor logs of programs: drop them together. Logs need
          their machines first.
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
      </dl>
      <p className="quiet">
        From the first machine on, Rounds says what is due by the calendar; every reading and every run makes
        it surer. Anything that was brought in can be taken back on Intake.
      </p>
      {adding && <AddMachines onClose={() => setAdding(false)} />}
    </div>
  );
}
