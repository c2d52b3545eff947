-- Machines also get wet, smell, fall, or do something that only words tell.
CREATE TABLE symptom_new (
    id                INTEGER PRIMARY KEY,
    asset_id          INTEGER NOT NULL REFERENCES asset (id),
    date              TEXT NOT NULL,
    kind              TEXT NOT NULL CHECK (kind IN ('crash', 'shutdown', 'throttling', 'noise', 'wet', 'smell', 'dropped', 'other')),
    note              TEXT,
    made_at           TEXT NOT NULL,
    withdrawn_at      TEXT,
    withdrawn_reason  TEXT,
    minutes           REAL,
    job_id            INTEGER REFERENCES job (id)
) STRICT;

INSERT INTO symptom_new
SELECT id, asset_id, date, kind, note, made_at, withdrawn_at, withdrawn_reason, minutes, job_id FROM symptom;

DROP TABLE symptom;

ALTER TABLE symptom_new RENAME TO symptom;

CREATE INDEX symptom_asset ON symptom (asset_id);

-- A machine that is back soon is linked to its earlier job.
ALTER TABLE job ADD COLUMN comeback_of INTEGER REFERENCES job (id);
ALTER TABLE job ADD COLUMN free INTEGER NOT NULL DEFAULT 0;
-- Null where the house has set nothing.
ALTER TABLE policy ADD COLUMN comeback_days INTEGER;
ALTER TABLE policy ADD COLUMN comebacks_free INTEGER;
