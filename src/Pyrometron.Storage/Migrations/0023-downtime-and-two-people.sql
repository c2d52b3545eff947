-- When machines may stand for work, for the whole house.
ALTER TABLE policy ADD COLUMN down_hours TEXT NOT NULL DEFAULT 'any-time';
ALTER TABLE policy ADD COLUMN spares_quarter_end INTEGER NOT NULL DEFAULT 0;

-- The age at which fans of a kind are changed; null where the calendar does not ask.
ALTER TABLE kind_interval ADD COLUMN fan REAL;

-- Rules may also hold for machines of one kind in one zone: the key is then zone/kind. A check cannot be widened in place.
CREATE TABLE local_rule_new (
    scope                TEXT NOT NULL CHECK (scope IN ('site', 'zone', 'kind', 'zone-kind', 'model', 'machine')),
    key                  TEXT NOT NULL,
    school               TEXT,
    warranty             TEXT,
    extent               TEXT,
    paste                TEXT,
    pads                 TEXT,
    action_margin_kelvin REAL,
    worth_kelvin         REAL,
    much_kelvin          REAL,
    look_months          REAL,
    dust_out_months      REAL,
    repaste_months       REAL,
    used_hard            INTEGER,
    pets_or_smoke        INTEGER,
    salt_air             INTEGER,
    dry_air              INTEGER,
    machine_hour         REAL,
    replacement          REAL,
    downtime_share       REAL,
    alcohol              TEXT,
    air                  TEXT,
    opening              TEXT,
    down_hours           TEXT,
    spares_quarter_end   INTEGER,
    two_people           INTEGER,
    fan_months           REAL,
    PRIMARY KEY (scope, key)
) STRICT;
INSERT INTO local_rule_new (scope, key, school, warranty, extent, paste, pads, action_margin_kelvin, worth_kelvin, much_kelvin,
    look_months, dust_out_months, repaste_months, used_hard, pets_or_smoke, salt_air, dry_air, machine_hour, replacement,
    downtime_share)
SELECT scope, key, school, warranty, extent, paste, pads, action_margin_kelvin, worth_kelvin, much_kelvin,
    look_months, dust_out_months, repaste_months, used_hard, pets_or_smoke, salt_air, dry_air, machine_hour, replacement,
    downtime_share
FROM local_rule;
DROP TABLE local_rule;
ALTER TABLE local_rule_new RENAME TO local_rule;

CREATE TABLE refused_interval_new (
    scope  TEXT NOT NULL CHECK (scope IN ('zone', 'zone-kind', 'model')),
    key    TEXT NOT NULL,
    level  TEXT NOT NULL,
    months REAL NOT NULL,
    at     TEXT NOT NULL,
    reason TEXT NOT NULL,
    PRIMARY KEY (scope, key, level)
) STRICT;
INSERT INTO refused_interval_new SELECT scope, key, level, months, at, reason FROM refused_interval;
DROP TABLE refused_interval;
ALTER TABLE refused_interval_new RENAME TO refused_interval;

-- The way from one zone to the next, minutes. No row: the usual ones.
CREATE TABLE walking (
    id            INTEGER PRIMARY KEY CHECK (id = 1),
    within_site   INTEGER NOT NULL CHECK (within_site >= 0),
    between_sites INTEGER NOT NULL CHECK (between_sites >= 0)
) STRICT;

-- Who helps with a job that takes two.
ALTER TABLE plan_job ADD COLUMN helper TEXT;
