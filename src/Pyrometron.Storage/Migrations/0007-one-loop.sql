-- What the bench measures and does comes back to the judgement; one fact stands in one place; every change is written down.

-- People, devices and the program itself. Lines of the change log name them by number only.
CREATE TABLE actor (
    id    INTEGER PRIMARY KEY,
    kind  TEXT NOT NULL CHECK (kind IN ('person', 'device', 'program')),
    name  TEXT NOT NULL,
    UNIQUE (kind, name)
) STRICT;

-- Who changed what, when, from what to what. Each line carries the hash of the one before it.
CREATE TABLE change (
    id         INTEGER PRIMARY KEY,
    at         TEXT NOT NULL,
    stored_at  TEXT NOT NULL,
    actor_id   INTEGER NOT NULL REFERENCES actor (id),
    kind       TEXT NOT NULL,
    asset_id   INTEGER REFERENCES asset (id),
    job_id     INTEGER REFERENCES job (id),
    before     TEXT,
    after      TEXT,
    -- The sentence in plain English, and as template and values.
    plain      TEXT NOT NULL,
    says       TEXT NOT NULL,
    hash       TEXT NOT NULL
) STRICT;

CREATE INDEX change_at ON change (at, id);
CREATE INDEX change_asset_at ON change (asset_id, at, id);

-- Machines that one line touches, where it is not one machine's: an import. A line without a machine touches the whole fleet.
CREATE TABLE change_touches (
    change_id  INTEGER NOT NULL REFERENCES change (id),
    asset_id   INTEGER NOT NULL REFERENCES asset (id),
    PRIMARY KEY (change_id, asset_id)
) STRICT, WITHOUT ROWID;

-- A service is one fact: when, by which job, what it renewed and used, what was proven of it (a record with a form of its own).
ALTER TABLE service ADD COLUMN job_id INTEGER REFERENCES job (id);
ALTER TABLE service ADD COLUMN proven TEXT;
ALTER TABLE service ADD COLUMN form INTEGER;
ALTER TABLE service ADD COLUMN record TEXT;
UPDATE service SET job_id = (SELECT max(j.id) FROM job j WHERE j.service_id = service.id);
CREATE INDEX service_asset ON service (asset_id);
CREATE INDEX service_job ON service (job_id) WHERE job_id IS NOT NULL;

-- A card as it was dealt, and what the job comes to for the machine's history: records with forms of their own.
ALTER TABLE job ADD COLUMN card_form INTEGER;
ALTER TABLE job ADD COLUMN card TEXT;
ALTER TABLE job ADD COLUMN history_form INTEGER;
ALTER TABLE job ADD COLUMN history TEXT;
ALTER TABLE job ADD COLUMN outcome TEXT;
ALTER TABLE job_entry ADD COLUMN form INTEGER NOT NULL DEFAULT 1;

-- After how long it shows, and the job that took it up.
ALTER TABLE symptom ADD COLUMN minutes REAL;
ALTER TABLE symptom ADD COLUMN job_id INTEGER REFERENCES job (id);
