-- The clock on the wall of a site; null for that of the machine the server runs on.
ALTER TABLE site ADD COLUMN time_zone TEXT;

-- Who works on machines. Skills and sites are words with spaces between; no sites: all of them.
CREATE TABLE person (
    id INTEGER PRIMARY KEY,
    code TEXT NOT NULL UNIQUE,
    name TEXT NOT NULL,
    skills TEXT NOT NULL,
    sites TEXT NOT NULL
);

-- A stretch of every week: weekday 0 is Sunday, minutes from its 00:00 on.
CREATE TABLE person_hours (
    person_id INTEGER NOT NULL REFERENCES person ON DELETE CASCADE,
    weekday INTEGER NOT NULL CHECK (weekday BETWEEN 0 AND 6),
    from_minute INTEGER NOT NULL,
    to_minute INTEGER NOT NULL CHECK (to_minute > from_minute)
);

CREATE TABLE absence (
    id INTEGER PRIMARY KEY,
    person_id INTEGER NOT NULL REFERENCES person ON DELETE CASCADE,
    from_day TEXT NOT NULL,
    to_day TEXT NOT NULL,
    reason TEXT NOT NULL
);

-- When machines of a zone may be worked on, and what it takes to begin there.
CREATE TABLE zone_times (
    zone_id INTEGER PRIMARY KEY REFERENCES zone ON DELETE CASCADE,
    setup_minutes INTEGER NOT NULL,
    max_down INTEGER
);

CREATE TABLE zone_hours (
    zone_id INTEGER NOT NULL REFERENCES zone ON DELETE CASCADE,
    weekday INTEGER NOT NULL CHECK (weekday BETWEEN 0 AND 6),
    from_minute INTEGER NOT NULL,
    to_minute INTEGER NOT NULL CHECK (to_minute > from_minute)
);

CREATE TABLE zone_closed (
    zone_id INTEGER NOT NULL REFERENCES zone ON DELETE CASCADE,
    from_day TEXT NOT NULL,
    to_day TEXT NOT NULL,
    reason TEXT NOT NULL
);

-- A machine that waits: parts that are not there yet.
CREATE TABLE hold (
    asset_id INTEGER PRIMARY KEY REFERENCES asset ON DELETE CASCADE,
    until_day TEXT NOT NULL,
    reason TEXT NOT NULL
);

-- Plans as they were made and changed, the newest in force. Numbers only grow: calendars tell newer from older by them.
CREATE TABLE plan (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    before_id INTEGER REFERENCES plan ON DELETE SET NULL,
    made_at TEXT NOT NULL,
    actor_id INTEGER NOT NULL REFERENCES actor,
    says TEXT NOT NULL,
    start_day TEXT NOT NULL,
    days INTEGER NOT NULL,
    cost REAL NOT NULL,
    bound REAL,
    planner TEXT NOT NULL
);

-- Work in its place, or left out where it has no person; what is done is a record of its own in JSON.
CREATE TABLE plan_job (
    plan_id INTEGER NOT NULL REFERENCES plan ON DELETE CASCADE,
    work TEXT NOT NULL,
    person TEXT,
    start TEXT,
    locked INTEGER NOT NULL DEFAULT 0,
    code TEXT,
    reason TEXT
);

CREATE INDEX plan_job_of_plan ON plan_job (plan_id);
