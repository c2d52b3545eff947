-- One job from the first measurement to the proof.

CREATE TABLE job (
    id                INTEGER PRIMARY KEY,
    asset_id          INTEGER NOT NULL REFERENCES asset (id),
    level             TEXT NOT NULL,
    state             TEXT NOT NULL CHECK (state IN ('open', 'waiting-for-proof', 'proven', 'abandoned')),
    started_at        TEXT NOT NULL,
    work_done_at      TEXT,
    closed_at         TEXT,
    no_before_reason  TEXT,
    verdict           TEXT,
    note              TEXT,
    service_id        INTEGER REFERENCES service (id),
    version           INTEGER NOT NULL DEFAULT 1
) STRICT;

CREATE INDEX job_asset ON job (asset_id);
CREATE INDEX job_state ON job (state) WHERE state IN ('open', 'waiting-for-proof');

CREATE TABLE job_step (
    job_id   INTEGER NOT NULL REFERENCES job (id),
    step     TEXT NOT NULL,
    done_at  TEXT NOT NULL,
    PRIMARY KEY (job_id, step)
) STRICT, WITHOUT ROWID;

-- A known load for a known time; the run itself in the form the API speaks.
CREATE TABLE run (
    id             INTEGER PRIMARY KEY,
    job_id         INTEGER NOT NULL REFERENCES job (id),
    phase          TEXT NOT NULL CHECK (phase IN ('before', 'after')),
    measured_at    TEXT NOT NULL,
    run            TEXT NOT NULL,
    voided_at      TEXT,
    voided_reason  TEXT
) STRICT;

CREATE INDEX run_job ON run (job_id);
