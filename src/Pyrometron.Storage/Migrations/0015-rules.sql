-- Months between services of a kind; null where the calendar asks for none. No row: the defaults.
CREATE TABLE kind_interval (
    kind              TEXT PRIMARY KEY CHECK (kind IN ('graphics-card', 'server', 'laptop', 'desktop')),
    look              REAL,
    dust_out          REAL,
    repaste           REAL,
    longest_dust_out  REAL,
    repaste_used_hard REAL
) STRICT;

-- What multiplies them.
CREATE TABLE interval_factors (
    id                INTEGER PRIMARY KEY CHECK (id = 1),
    hard_use_hours    REAL NOT NULL,
    clean_air         REAL NOT NULL,
    heavy_dust        REAL NOT NULL,
    server_clean_air  REAL NOT NULL,
    server_heavy_dust REAL NOT NULL,
    pets_or_smoke     REAL NOT NULL,
    all_day           REAL NOT NULL,
    few_hours         REAL NOT NULL,
    per_hot_kelvin    REAL NOT NULL,
    per_kilometre     REAL NOT NULL,
    salt_air          REAL NOT NULL,
    dry_air           REAL NOT NULL
) STRICT;

ALTER TABLE policy ADD COLUMN downtime_share REAL NOT NULL DEFAULT 1;

-- Rules for some machines; what is null is left to the next wider rule.
CREATE TABLE local_rule (
    scope                TEXT NOT NULL CHECK (scope IN ('site', 'zone', 'kind', 'model', 'machine')),
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
    PRIMARY KEY (scope, key)
) STRICT;
